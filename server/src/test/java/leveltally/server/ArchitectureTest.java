package leveltally.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.Architectures.LayeredArchitecture;
import java.util.List;

@AnalyzeClasses(packages = "leveltally.server", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    private static final List<String> ORDER = List.of(
            "frame",
            "audit",
            "pictures",
            "company",
            "people",
            "mail",
            "ledger",
            "vendors",
            "invoices",
            "imports",
            "selection",
            "batches",
            "marks",
            "approval",
            "payments",
            "checks",
            "printers",
            "paper",
            "printing",
            "advice",
            "reports",
            "outside",
            "direct",
            "bankfiles",
            "electronic",
            "wires",
            "contacts",
            "voiding",
            "posting",
            "clearing",
            "exchange",
            "practice",
            "proof",
            "workline",
            "setup",
            "demo");

    /** Capabilities know only those before them in the order of the work. */
    @ArchTest
    static final ArchRule ONE_WAY = order();

    /** Entities stay inside their capability. */
    @ArchTest
    static final ArchRule ENTITIES_STAY_INSIDE = noClasses()
            .that()
            .areAnnotatedWith("jakarta.persistence.Entity")
            .should()
            .bePublic();

    @ArchTest
    static final ArchRule CONTROLLERS_ARE_NOT_SHARED =
            noClasses().that().haveSimpleNameEndingWith("Controller").should().bePublic();

    /** HTTP only: what is read or done stands in a service, with its transaction. */
    @ArchTest
    static final ArchRule CONTROLLERS_KNOW_NO_DATABASE = noClasses()
            .that()
            .haveSimpleNameEndingWith("Controller")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "org.springframework.jdbc..", "jakarta.persistence..", "org.springframework.transaction..")
            .orShould()
            .dependOnClassesThat()
            .haveSimpleName("CsvLists");

    private static ArchRule order() {
        LayeredArchitecture layers = layeredArchitecture().consideringOnlyDependenciesInLayers();
        for (String name : ORDER) {
            layers = layers.layer(name).definedBy("leveltally.server." + name + "..");
        }
        for (int i = 0; i < ORDER.size(); i++) {
            List<String> later = ORDER.subList(i + 1, ORDER.size());
            layers = later.isEmpty()
                    ? layers.whereLayer(ORDER.get(i)).mayNotBeAccessedByAnyLayer()
                    : layers.whereLayer(ORDER.get(i)).mayOnlyBeAccessedByLayers(later.toArray(String[]::new));
        }
        return layers;
    }
}
