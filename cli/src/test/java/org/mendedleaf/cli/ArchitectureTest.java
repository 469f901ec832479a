package org.mendedleaf.cli;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.mendedleaf.cli", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule sectionsDoNotNeedEachOtherInCircles =
            slices().matching("org.mendedleaf.cli.(*)").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule whatCommandsShareKnowsNone = noClasses()
            .that()
            .resideInAPackage("..cli.base")
            .should()
            .dependOnClassesThat()
            .haveSimpleNameEndingWith("Command");

    @ArchTest
    static final ArchRule commandsDoNotKnowTheProgram = noClasses()
            .that()
            .resideInAPackage("..cli.*")
            .should()
            .dependOnClassesThat()
            .haveFullyQualifiedName("org.mendedleaf.cli.Main");

    @ArchTest
    static final ArchRule tablesAreOfNoConcernToACommand =
            noClasses().should().dependOnClassesThat().resideInAPackage("java.sql..");
}
