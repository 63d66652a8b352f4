package awlsmith.core;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;

/** The core uses the JDK and its vector module, does no input or output and knows no screens. */
@AnalyzeClasses(packages = "awlsmith.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule USES_ONLY_THE_JDK = ArchRuleDefinition.classes()
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage("awlsmith.core..", "java..", "jdk.incubator.vector..");

    @ArchTest
    static final ArchRule DOES_NO_INPUT_OR_OUTPUT = ArchRuleDefinition.noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("java.io..", "java.nio.file..", "java.net..", "java.sql..", "java.awt..", "javax..");

    @ArchTest
    static final ArchRule PACKAGES_MAKE_NO_CIRCLES_BELOW_THE_RECIPE = SlicesRuleDefinition.slices()
            .matching("awlsmith.core.(picture|pipeline|resample|measure)..")
            .should()
            .beFreeOfCycles();
}
