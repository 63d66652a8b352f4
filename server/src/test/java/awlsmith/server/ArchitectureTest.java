package awlsmith.server;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;

/** Controllers are thin, only repositories talk to the database, and nothing below knows the server. */
@AnalyzeClasses(packages = "awlsmith", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule ONLY_REPOSITORIES_USE_TABLES = ArchRuleDefinition.noClasses()
            .that()
            .haveSimpleNameNotEndingWith("Repository")
            .and()
            .resideOutsideOfPackage("awlsmith.server.db..")
            .and()
            .doNotHaveSimpleName("Owner")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("awlsmith.server.db.tables..");

    @ArchTest
    static final ArchRule CONTROLLERS_ASK_SERVICES = ArchRuleDefinition.noClasses()
            .that()
            .haveSimpleNameEndingWith("Controller")
            .should()
            .dependOnClassesThat(JavaClass.Predicates.simpleNameEndingWith("Repository")
                    .and(JavaClass.Predicates.resideInAPackage("awlsmith..")));

    @ArchTest
    static final ArchRule NOTHING_BELOW_KNOWS_THE_SERVER = ArchRuleDefinition.noClasses()
            .that()
            .resideInAnyPackage(
                    "awlsmith.core..", "awlsmith.media..", "awlsmith.nets..", "awlsmith.render..", "awlsmith.demo..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("awlsmith.server..", "org.springframework..");

    @ArchTest
    static final ArchRule ONLY_MEDIA_STARTS_PROCESSES = ArchRuleDefinition.noClasses()
            .that()
            .resideOutsideOfPackage("awlsmith.media..")
            .should()
            .dependOnClassesThat()
            .areAssignableTo(ProcessBuilder.class);
}
