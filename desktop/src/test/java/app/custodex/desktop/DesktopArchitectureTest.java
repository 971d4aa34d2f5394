package app.custodex.desktop;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.joran.JoranConfigurator;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;

@AnalyzeClasses(packages = "app.custodex.desktop", importOptions = ImportOption.DoNotIncludeTests.class)
class DesktopArchitectureTest {
    @ArchTest
    static final ArchRule PRACTICE_PHONES_ARE_FOUND_AND_NOT_KNOWN =
            noClasses().should().dependOnClassesThat().resideInAPackage("app.custodex.practice..");

    @ArchTest
    static final ArchRule MODELS_HOLD_NO_NODES = noClasses()
            .that()
            .haveSimpleNameEndingWith("Model")
            .or()
            .haveSimpleName("Desk")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("javafx.scene..");

    @ArchTest
    static final ArchRule PACKAGES_FORM_NO_CIRCLES =
            slices().matching("app.custodex.desktop.(*)..").should().beFreeOfCycles();

    /** The root puts everything together; what it puts together knows nothing of it. */
    @ArchTest
    static final ArchRule NOBODY_KNOWS_THE_ROOT = noClasses()
            .that()
            .resideInAPackage("app.custodex.desktop.(*)..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("app.custodex.desktop");

    @ArchTest
    static final ArchRule THE_TIME_IS_THE_CORES = noClasses()
            .should()
            .callMethod(Instant.class, "now")
            .orShould()
            .callMethod(LocalDate.class, "now")
            .orShould()
            .callMethod(LocalDateTime.class, "now")
            .orShould()
            .callMethod(System.class, "currentTimeMillis");

    @ArchTest
    static final ArchRule PICTURES_FOR_THE_DOCS_ARE_MADE_ELSEWHERE =
            noClasses().should().dependOnClassesThat().resideInAnyPackage("javafx.embed..", "java.awt..");

    @Test
    void theStartIsUnderstoodOrSaysWhatItIsNot() {
        Assertions.assertTrue(Options.parse(List.of("demo", "--fresh")).fresh());
        Assertions.assertEquals(
                Path.of("/x/y"),
                Options.parse(List.of("open", "--home", "/x/y")).home().root());
        Assertions.assertFalse(Options.parse(List.of("open")).demo());
        for (var bad : List.of(
                List.of("open", "--fresh"), List.of("shots"), List.of("demo", "--home"), List.of("demo", "what"))) {
            var told = Assertions.assertThrows(IllegalArgumentException.class, () -> Options.parse(bad));
            Assertions.assertTrue(told.toString().contains("custodex demo"), told.toString());
        }
    }

    /** The HTTP library logs at its lowest levels what it sends and gets. */
    @Test
    void noLogHoldsWhatGoesOverTheWire() throws Exception {
        var context = new LoggerContext();
        var shipped = new JoranConfigurator();
        shipped.setContext(context);
        shipped.doConfigure(Main.class.getResource("/logback.xml"));
        context.getLogger(Logger.ROOT_LOGGER_NAME).setLevel(Level.ALL);
        for (var talkative : List.of("org.apache.hc.client5.http.wire", "org.apache.hc.client5.http.headers")) {
            Assertions.assertFalse(context.getLogger(talkative).isErrorEnabled(), talkative);
        }
        Assertions.assertTrue(context.getLogger("app.custodex.link").isTraceEnabled());
        context.stop();
    }

    @Test
    void theTestsHaveAScreen() {
        Assertions.assertNotNull(System.getenv("DISPLAY"), "the interface tests need a display; use ./custodex test");
    }
}
