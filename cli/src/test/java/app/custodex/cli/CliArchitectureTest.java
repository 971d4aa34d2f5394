package app.custodex.cli;

import static com.tngtech.archunit.base.DescribedPredicate.not;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.equivalentTo;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.simpleName;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.simpleNameEndingWith;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import picocli.CommandLine.Command;

@AnalyzeClasses(packages = "app.custodex.cli", importOptions = ImportOption.DoNotIncludeTests.class)
class CliArchitectureTest {
    @ArchTest
    static final ArchRule PRACTICE_PHONES_ARE_FOUND_AND_NOT_KNOWN = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("app.custodex.practice..", "javafx..", "java.awt..");

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

    /** What several commands need stands in classes of its own; only the root lists them. */
    @ArchTest
    static void commandsKnowNoOtherCommand(JavaClasses classes) {
        for (var command : classes) {
            var name = command.getSimpleName();
            if (name.endsWith("Command") && !name.equals("CustodexCommand")) {
                noClasses()
                        .that()
                        .haveSimpleName(name)
                        .should()
                        .dependOnClassesThat(simpleNameEndingWith("Command")
                                .and(not(equivalentTo(Command.class)))
                                .and(not(simpleName(name))))
                        .check(classes);
            }
        }
    }

    @ArchTest
    static final ArchRule COMMANDS_SAY_HOW_THEY_ENDED =
            classes().that().haveSimpleNameEndingWith("Command").should().beAnnotatedWith(Command.class);
}
