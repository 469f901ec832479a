package org.mendedleaf.desktop;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.mendedleaf.desktop", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule packagesDoNotNeedEachOtherInCircles =
            slices().matching("org.mendedleaf.desktop.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule screensReachEachOtherByTheNavigatorOnly = slices().matching("org.mendedleaf.desktop.(*)..")
            .that(DescribedPredicate.describe(
                    "are screens",
                    s -> s.stream()
                            .noneMatch(c -> isShared(c) || c.getPackageName().endsWith(".shell"))))
            .should()
            .notDependOnEachOther();

    @ArchTest
    static final ArchRule whatScreensShareKnowsNoScreen = classes()
            .that()
            .resideInAnyPackage("..desktop.context..", "..desktop.widgets..", "..desktop.document..")
            .should()
            .onlyDependOnClassesThat(DescribedPredicate.describe(
                    "are no screens", c -> !c.getPackageName().startsWith("org.mendedleaf.desktop") || isShared(c)));

    @ArchTest
    static final ArchRule modelsHaveNoScene = noClasses()
            .that()
            .haveSimpleNameEndingWith("Model")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("javafx.scene.control..", "javafx.scene.layout..", "javafx.stage..");

    private static boolean isShared(JavaClass c) {
        String name = c.getPackageName().replace("org.mendedleaf.desktop.", "");
        return name.equals("context") || name.equals("widgets") || name.equals("document");
    }
}
