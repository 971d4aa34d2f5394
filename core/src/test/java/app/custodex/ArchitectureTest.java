package app.custodex;

import static com.tngtech.archunit.base.DescribedPredicate.not;
import static com.tngtech.archunit.core.domain.JavaCall.Predicates.target;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.type;
import static com.tngtech.archunit.core.domain.properties.HasName.Predicates.nameMatching;
import static com.tngtech.archunit.core.domain.properties.HasOwner.Predicates.With.owner;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.awt.Font;
import java.awt.FontFormatException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Locale;
import org.junit.jupiter.api.Assertions;

/** Keeps the core in the shape that docs/architecture.md describes. */
@AnalyzeClasses(packages = "app.custodex", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule THE_CORE_KNOWS_NO_INTERFACE = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("javafx..", "java.awt.event..", "javax.swing..", "picocli..");

    /** The platform shapes text and holds pictures for paper; nothing of its windows is used. */
    @ArchTest
    static final ArchRule ONLY_PAPER_AND_PICTURES_NEED_THE_GRAPHICS_OF_THE_PLATFORM = noClasses()
            .that()
            .resideOutsideOfPackages("..extract.pdf", "..extract.pictures")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("java.awt..");

    @ArchTest
    static final ArchRule PAPER_AND_PICTURES_OPEN_NO_WINDOW = noClasses()
            .that()
            .resideInAnyPackage("..extract.pdf", "..extract.pictures")
            .should()
            .dependOnClassesThat(resideInAPackage("java.awt")
                    .and(not(type(Font.class)).and(not(type(FontFormatException.class))))
                    .as("those of windows"));

    @ArchTest
    static final ArchRule PACKAGES_FORM_NO_CYCLES =
            slices().matching("app.custodex.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule READERS_KNOW_ANY_SOURCE_OF_FILES_AND_NO_STRONGROOM = noClasses()
            .that()
            .resideInAPackage("..readers..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("app.custodex.strongroom..", "app.custodex.backup..", "app.custodex.app..");

    @ArchTest
    static final ArchRule THE_MODEL_DEPENDS_ON_NOTHING = classes()
            .that()
            .resideInAPackage("..model..")
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage("..model..", "java..", "org.jspecify..");

    @ArchTest
    static final ArchRule ONLY_THE_USE_CASES_JOIN_EVERYTHING = noClasses()
            .that()
            .resideOutsideOfPackage("app.custodex.app")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("app.custodex.app");

    @ArchTest
    static final ArchRule TIME_IS_PASSED_IN = noClasses().should().callMethod(Instant.class, "now");

    /** What is stored or exchanged must be the same on every computer, and so must the messages that go with it. */
    @ArchTest
    static final ArchRule THE_LOCALE_IS_PASSED_IN = noClasses()
            .should()
            .callMethod(Locale.class, "getDefault")
            .orShould()
            .callMethod(String.class, "formatted", Object[].class)
            .orShould()
            .callMethod(String.class, "format", String.class, Object[].class)
            .orShould()
            .callMethod(String.class, "toLowerCase")
            .orShould()
            .callMethod(String.class, "toUpperCase");

    /** A cut or a full disk is survived by what goes through the disk; what goes past it is survived by nobody. */
    @ArchTest
    static final ArchRule WHAT_IS_STORED_GOES_THROUGH_THE_DISK = noClasses()
            .that()
            .resideInAnyPackage("..strongroom..", "..docket..", "..backup..")
            .should()
            .callMethodWhere(target(nameMatching(
                            "write|writeString|newOutputStream|newBufferedWriter|move|copy|createDirector.*"))
                    .and(target(owner(type(Files.class)))));

    @ArchTest
    static void everyPackageSaysThatNothingIsNull(JavaClasses classes) throws Exception {
        try (var folders = Files.walk(Path.of("src/main/java"))) {
            for (var folder : folders.filter(Files::isDirectory).toList()) {
                try (var files = Files.list(folder)) {
                    if (files.anyMatch(f -> f.toString().endsWith(".java"))) {
                        Assertions.assertTrue(
                                Files.readString(folder.resolve("package-info.java"))
                                        .contains("NullMarked"),
                                folder.toString());
                    }
                }
            }
        }
    }
}
