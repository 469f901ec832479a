package org.mendedleaf.core;

import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAnyPackage;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.conditions.ArchConditions;
import java.util.Arrays;
import java.util.List;

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
    static final ArchRule packagesDoNotNeedEachOtherInCircles =
            slices().matching("org.mendedleaf.core.(**)").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule theVaultKnowsBytesOnly = classes()
            .that()
            .resideInAPackage("..core.vault..")
            .should()
            .onlyDependOnClassesThat(are("vault", "deflate", "disk", "jobs", "words"));

    @ArchTest
    static final ArchRule linesAreValues = classes()
            .that()
            .resideInAPackage("..core.line..")
            .should()
            .onlyDependOnClassesThat(are("line", "time", "disk", "vault", "words"))
            .andShould(notDependOn("java.sql", "java.nio.file.Files", "java.nio.channels"));

    @ArchTest
    static final ArchRule databasesAreOpenedAtOneDoor =
            noClasses().should().dependOnClassesThat().haveFullyQualifiedName("java.sql.DriverManager");

    @ArchTest
    static final ArchRule theCatalogueCallsNeitherWorkNorRules = classes()
            .that()
            .resideInAPackage("..core.catalogue..")
            .should()
            .onlyDependOnClassesThat(
                    are("catalogue", "line", "time", "disk", "vault", "journal", "jobs", "report", "words"));

    @ArchTest
    static final ArchRule aFormOfReportsKnowsNothingOfWhatIsReported = classes()
            .that()
            .resideInAPackage("..core.report..")
            .should()
            .onlyDependOnClassesThat(are("report", "words"));

    @ArchTest
    static final ArchRule theTablesOfTheCatalogueAreKnownToItAndItsCheckOnly = noClasses()
            .that()
            .resideOutsideOfPackages("..core.catalogue..", "..core.check..")
            .should()
            .dependOnClassesThat(named("Sql"));

    @ArchTest
    static final ArchRule documentsAreReadWithoutFilesAndPeople = noClasses()
            .that()
            .resideInAPackage("..core.document..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "..core.line..", "..core.catalogue..", "..core.vault..", "..core.disk..", "..core.compare..");

    @ArchTest
    static final ArchRule captureDoesNotCallRecovery = noClasses()
            .that()
            .resideInAPackage("..core.capture..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("..core.recovery..");

    @ArchTest
    static final ArchRule whatDecidesDoesNotTouchFiles = noClasses()
            .that(named(
                    "Verdicts",
                    "RowHolds",
                    "LineRules",
                    "RestorePlanner",
                    "Guard",
                    "Matcher",
                    "Alignment",
                    "ProseCompare",
                    "SheetCompare",
                    "TextCompare",
                    "WordCompare",
                    "CutShort",
                    "Emptied",
                    "Crossed",
                    "SavedOver",
                    "ManyChanged",
                    "NewEndings",
                    "RemovedInBulk",
                    "ChangedUnseen"))
            .should()
            .dependOnClassesThat(named("Files", "FileChannel", "SafeFolder", "OpenVault", "WriteSession"));

    /** Classes of these packages of the core, and all that is not ours. */
    private static DescribedPredicate<JavaClass> are(String... packages) {
        String[] ours = Arrays.stream(packages).map(p -> "..core." + p + "..").toArray(String[]::new);
        return resideInAnyPackage(ours).or(DescribedPredicate.not(resideInAPackage("org.mendedleaf..")));
    }

    private static DescribedPredicate<JavaClass> named(String... names) {
        return DescribedPredicate.describe(
                "named " + String.join(", ", names), c -> List.of(names).contains(c.getSimpleName()));
    }

    private static ArchCondition<JavaClass> notDependOn(String... prefixes) {
        return ArchConditions.not(ArchConditions.dependOnClassesThat(DescribedPredicate.describe(
                "begin with " + String.join(", ", prefixes),
                c -> Arrays.stream(prefixes).anyMatch(c.getName()::startsWith))));
    }
}
