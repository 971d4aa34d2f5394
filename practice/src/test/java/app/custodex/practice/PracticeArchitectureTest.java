package app.custodex.practice;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The phones are the other end of the link and know nothing else of the core. */
@AnalyzeClasses(packages = "app.custodex.practice", importOptions = ImportOption.DoNotIncludeTests.class)
class PracticeArchitectureTest {
    @ArchTest
    static final ArchRule ONLY_THE_LINKS_VOCABULARY_IS_SHARED = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "app.custodex.strongroom..",
                    "app.custodex.backup..",
                    "app.custodex.readers..",
                    "app.custodex.model..",
                    "app.custodex.extract..",
                    "app.custodex.app..",
                    "javafx..");
}
