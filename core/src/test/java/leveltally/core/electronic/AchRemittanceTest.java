package leveltally.core.electronic;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.electronic.FiledPayment.Document;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.vendors.BankDetails;
import org.junit.jupiter.api.Test;

/** What addenda say, beside segments written out by hand. */
class AchRemittanceTest {
    private static final AchSender SENDER = new AchSender(
            new RoutingNumber("990044105"),
            "SKERROW TRUST",
            "1994400117",
            "MARROW BAY FERRIES",
            "MARROW BAY",
            "1994400117",
            "INVOICES",
            new RoutingNumber("990044105"),
            "004417720931");

    private static final List<Document> TWO = List.of(
            new Document("OP-1180*7\\", false, usd("1225.00"), usd("1250.00"), usd("25.00")),
            new Document("C-7", true, usd("250.00"), usd("250.00"), usd("0.00")));

    @Test
    void fewDocumentsStandInOneAddendum() {
        assertThat(AchRemittance.inOne(TWO, "E-41"))
                .containsExactly("RMR*IV*OP-1180.7.**1225.00\\RMR*CM*C-7**-250.00\\");
        assertThat(AchRemittance.inOne(List.of(), "E-41")).isEmpty();
    }

    @Test
    void whatIsTooMuchIsSaidByTheAdvice() {
        List<Document> many = new ArrayList<>();
        for (int i = 0; i < 45; i++) {
            many.addAll(TWO);
        }
        assertThat(AchRemittance.inOne(many, "E-41")).containsExactly("NTE*ADD*90 DOCUMENTS, SEE ADVICE E-41\\");
    }

    @Test
    void allDocumentsStandInAsManyAsItTakes() {
        FiledPayment order = new FiledPayment(
                "A100041",
                42,
                usd("975.00"),
                new BankDetails("990073053", "1234", true, ""),
                "Gannet Rope Walk",
                List.of(),
                TWO);
        List<String> addenda = AchRemittance.inMany(SENDER, order, day("2026-11-13"));
        assertThat(addenda.subList(0, addenda.size() - 1))
                .allSatisfy(one -> assertThat(one).hasSize(80));
        assertThat(String.join("", addenda))
                .isEqualTo("ST*820*0001\\"
                        + "BPR*C*975.00*C*ACH*CTX*01*990044105*DA*004417720931*1994400117**01*990073053*SG*1234*20261113\\"
                        + "TRN*1*A100041\\ENT*1\\"
                        + "RMR*IV*OP-1180.7.**1225.00*1250.00*25.00\\RMR*CM*C-7**-250.00*-250.00\\"
                        + "SE*7*0001\\");
    }
}
