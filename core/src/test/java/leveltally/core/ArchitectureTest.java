package leveltally.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.Architectures.LayeredArchitecture;
import java.util.List;

@AnalyzeClasses(packages = "leveltally.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    private static final List<String> ORDER = List.of(
            "money",
            "people",
            "company",
            "ledger",
            "terms",
            "vendors",
            "invoices",
            "imports",
            "selection",
            "batches",
            "printers",
            "paper",
            "reports",
            "marks",
            "approval",
            "payments",
            "checks",
            "outside",
            "direct",
            "printing",
            "electronic",
            "wires",
            "posting",
            "contacts",
            "voiding",
            "bankfiles",
            "clearing",
            "exchange",
            "audit",
            "proof",
            "workline",
            "setup");

    @ArchTest
    static final ArchRule PURE = classes()
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage(
                    "leveltally.core..",
                    "java..",
                    "javax.xml.stream..",
                    "com.ibm.icu..",
                    "org.iban4j..",
                    "org.jspecify..");

    /** Capabilities know only those before them in the order of the work. */
    @ArchTest
    static final ArchRule ONE_WAY = order();

    private static ArchRule order() {
        LayeredArchitecture layers = layeredArchitecture().consideringOnlyDependenciesInLayers();
        for (String name : ORDER) {
            layers = layers.layer(name).definedBy("leveltally.core." + name + "..");
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
