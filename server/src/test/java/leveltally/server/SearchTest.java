package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Any thing is found by what people know of it. */
class SearchTest {
    private static final Http INES = Http.signedIn("ines");
    private static final JsonMapper JSON = new JsonMapper();

    private static List<String> found(String text) {
        Http.Answer answer = INES.get("/api/search?text=" + URLEncoder.encode(text, StandardCharsets.UTF_8));
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        List<String> found = new ArrayList<>();
        for (JsonNode hit : JSON.readTree(answer.body())) {
            found.add(hit.get("kind").asString() + " " + hit.get("title").asString());
        }
        return found;
    }

    @Test
    void anInvoiceIsFoundByTheBeginningAndTheEndOfItsReferenceItsEntryAndItsAmount() {
        InvoiceId invoice = App.invoice("Gannet Rope Walk", "7,654.32");
        String reference = App.jdbc()
                .sql("SELECT reference FROM invoice WHERE id = ?")
                .param(invoice.value())
                .query(String.class)
                .single();
        String hit = "Invoice " + reference;
        assertThat(found(reference)).contains(hit);
        assertThat(found(reference.substring(1))).contains(hit);
        assertThat(found(reference.toLowerCase(java.util.Locale.ROOT))).contains(hit);
        assertThat(found("7,654.32")).containsExactly(hit);
        assertThat(found("7654.32")).containsExactly(hit);
        assertThat(found(String.valueOf(invoice.value()))).contains("Invoice Entry " + invoice.value());
    }

    @Test
    void aCheckIsFoundByItsFirstDigitsAndItsAmount() {
        long number = App.number("SELECT MIN(number) FROM check_register WHERE state = 'CLEARED' AND number > 40000");
        assertThat(found(String.valueOf(number))).contains("Check " + number);
        String amount = App.jdbc()
                .sql("SELECT FORMAT(p.amount_minor / 100, 2) FROM payment p JOIN check_number n ON n.payment_id = p.id"
                        + " WHERE n.number = ?")
                .param(number)
                .query(String.class)
                .single();
        assertThat(found(amount)).contains("Check " + number);
        assertThat(found("41")).isNotEmpty().allMatch(hit -> !hit.startsWith("Check ") || hit.startsWith("Check 41"));
    }

    @Test
    void vendorsAndBatchesAreFoundByAnyPartOfTheirNames() {
        assertThat(found("rope walk")).contains("Vendor Gannet Rope Walk");
        assertThat(found("V1001")).anyMatch(hit -> hit.startsWith("Vendor "));
        assertThat(found("x")).isEmpty();
        assertThat(found("%")).isEmpty();
    }

    @Test
    void noQuestionReadsAllInvoices() {
        for (String where : List.of(
                "reference LIKE 'T-1%'",
                "reference_backwards LIKE '1-T%'", "amount_minor = 765432 AND currency = 'USD'")) {
            assertThat(App.jdbc()
                            .sql("EXPLAIN SELECT id FROM invoice FORCE INDEX (by_reference, reference_from_its_end,"
                                    + " amount_alone) WHERE " + where)
                            .query((r, n) -> r.getString("type"))
                            .single())
                    .as(where)
                    .isIn("range", "ref");
        }
    }
}
