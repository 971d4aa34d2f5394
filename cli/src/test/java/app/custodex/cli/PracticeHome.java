package app.custodex.cli;

import app.custodex.app.Home;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeDrawer.Contents;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ServiceLoader;

/** Practice phones for each test, drawn once and copied: drawing them takes seconds. */
final class PracticeHome {
    static final int CONTACTS = 25;

    private static final Contents CONTENTS = Contents.sketched(1, CONTACTS);

    private PracticeHome() {}

    private static final class Drawn {
        private static final Path FOLDER = draw();

        private static Path draw() {
            try {
                var folder = Files.createTempDirectory("practice-phones");
                open(folder).close();
                return folder;
            } catch (IOException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private static PracticeDrawer open(Path folder) throws IOException {
        return ServiceLoader.load(PracticeDrawer.Provider.class)
                .findFirst()
                .orElseThrow()
                .open(folder, CONTENTS);
    }

    static PracticeDrawer drawer(Home home) throws IOException {
        try (var files = Files.walk(Drawn.FOLDER)) {
            for (var file : files.toList()) {
                var target =
                        home.practice().resolve(Drawn.FOLDER.relativize(file).toString());
                if (Files.isDirectory(file)) {
                    Files.createDirectories(target);
                } else {
                    Files.copy(file, target, StandardCopyOption.COPY_ATTRIBUTES);
                }
            }
        }
        return open(home.practice());
    }
}
