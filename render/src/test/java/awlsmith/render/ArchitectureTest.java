package awlsmith.render;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.Architectures;

/** The arrows between the modules below the server. */
@AnalyzeClasses(
        packages = {"awlsmith.core", "awlsmith.media", "awlsmith.nets", "awlsmith.render"},
        importOptions = {ImportOption.DoNotIncludeTests.class})
class ArchitectureTest {
    @ArchTest
    static final ArchRule LAYERS = Architectures.layeredArchitecture()
            .consideringOnlyDependenciesInLayers()
            .layer("core")
            .definedBy("awlsmith.core..")
            .layer("media")
            .definedBy("awlsmith.media..")
            .layer("nets")
            .definedBy("awlsmith.nets..")
            .layer("render")
            .definedBy("awlsmith.render..")
            .whereLayer("render")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("nets")
            .mayOnlyBeAccessedByLayers("render")
            .whereLayer("media")
            .mayOnlyBeAccessedByLayers("render");
}
