package org.mendedleaf.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.mendedleaf.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule picturesAreDrawnWhereDocumentsAreReadAndNowhereElse = noClasses()
            .that()
            .resideOutsideOfPackage("..core.document..")
            .should()
            .dependOnClassesThat()
            // Pictures of pixels (java.awt.image) are contents, and no interface.
            .resideInAnyPackage("java.awt");

    @ArchTest
    static final ArchRule theCoreHasNoInterfaceCode = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "javafx..",
                    "java.awt.event..",
                    "javax.swing..",
                    "picocli..",
                    "org.mendedleaf.desktop..",
                    "org.mendedleaf.cli..");

    @ArchTest
    static final ArchRule theVaultKnowsNothingOfFilesAndPeople = noClasses()
            .that()
            .resideInAPackage("..core.vault..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "..core.line..", "..core.capture..", "..core.recovery..", "..core.home..", "..core.disk..");

    @ArchTest
    static final ArchRule linesDoNotCallCaptureOrRecovery = noClasses()
            .that()
            .resideInAPackage("..core.line..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("..core.capture..", "..core.recovery..", "..core.preview..", "..core.compare..");

    @ArchTest
    static final ArchRule documentsAreReadWithoutFilesAndPeople = noClasses()
            .that()
            .resideInAPackage("..core.document..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("..core.line..", "..core.vault..", "..core.disk..", "..core.compare..");

    @ArchTest
    static final ArchRule captureDoesNotCallRecovery = noClasses()
            .that()
            .resideInAPackage("..core.capture..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("..core.recovery..");
}
