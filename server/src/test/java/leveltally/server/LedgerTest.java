package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.HashSet;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.server.ledger.Periods;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class LedgerTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Http PRIYA = Http.signedIn("priya");

    private static JsonNode read(String path) throws Exception {
        Http.Answer answer = PRIYA.get(path);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    @Test
    void aMonthWithNumberedPaymentsCannotBeLocked() {
        BatchId batch = App.printed(App.invoice("Bollard Foundry", "31.00"));
        YearMonth november = YearMonth.of(2026, 11);
        assertThatThrownBy(() -> bean(Periods.class).lock(App.ruth(), november))
                .hasMessageContaining("Post them first");
        bean(Posting.class).post(App.ines(), batch);
    }

    @Test
    void lockingAndUnlockingIsTheControllersAndKeepsItsReason() {
        YearMonth december = YearMonth.of(2026, 12);
        Periods periods = bean(Periods.class);
        assertThatThrownBy(() -> periods.lock(App.ines(), december)).hasMessageContaining("needs the role controller");
        periods.lock(App.ruth(), december);
        assertThatThrownBy(() -> periods.lock(App.ruth(), december)).hasMessageContaining("locked already");
        assertThatThrownBy(() -> periods.shareOpen(LocalDate.of(2026, 12, 5)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("December 2026 is locked");
        assertThatThrownBy(() -> periods.unlock(App.ruth(), december, " ")).hasMessageContaining("Say why");
        periods.unlock(App.ruth(), december, "a late invoice");
        periods.shareOpen(LocalDate.of(2026, 12, 5));
        assertThat(App.number("SELECT COUNT(*) FROM period_lock WHERE unlock_reason = 'a late invoice'"))
                .isOne();
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @Test
    void aDateWithoutAPeriodIsRefused() {
        assertThatThrownBy(() -> bean(Periods.class).shareOpen(LocalDate.of(2031, 1, 1)))
                .hasMessageContaining("no period");
    }

    @Test
    void pagesShowEveryEntryOnceNewestFirst() throws Exception {
        Set<Long> seen = new HashSet<>();
        String after = "";
        String last = "9999";
        JsonNode page;
        do {
            page = read("/api/ledger/2026-11/entries" + after);
            for (JsonNode entry : page.get("entries")) {
                assertThat(seen.add(entry.get("id").asLong())).isTrue();
                assertThat(entry.get("date").asString()).isLessThanOrEqualTo(last);
                last = entry.get("date").asString();
                assertThat(entry.get("lines").size()).isGreaterThanOrEqualTo(2);
            }
            after = "?after=" + (page.hasNonNull("next") ? page.get("next").asString() : "");
        } while (page.hasNonNull("next"));
        assertThat(seen).hasSize((int) App.number("SELECT COUNT(*) FROM journal_entry WHERE month = '2026-11'"));
    }

    @Test
    void aTrialBalanceStartsWhereTheMonthBeforeEnded() throws Exception {
        JsonNode september = read("/api/ledger/2026-09/trial-balance");
        JsonNode october = read("/api/ledger/2026-10/trial-balance");
        for (JsonNode before : september.get("lines")) {
            for (JsonNode after : october.get("lines")) {
                if (after.get("account").equals(before.get("account"))
                        && after.get("currency").equals(before.get("currency"))) {
                    assertThat(after.get("opening")).isEqualTo(before.get("closing"));
                }
            }
        }
        for (JsonNode total : october.get("totals")) {
            assertThat(total.get("debit")).isEqualTo(total.get("credit"));
        }
        assertThat(september.get("locked").asBoolean()).isTrue();
    }

    @Test
    void aMonthThatIsBeingClosedFinishesWhatIsUnderWayAndTakesNothingNew() {
        BatchId underWay = App.printed(App.invoice("Bollard Foundry", "73.10"));
        InvoiceId invoice = App.invoice("Bollard Foundry", "73.20");
        Http ruth = Http.signedIn("ruth");
        String path = "/api/periods/2026-11/closing";
        assertThat(Http.signedIn("ines").post(path, "{\"closing\": true}").status())
                .isEqualTo(403);
        assertThat(ruth.post(path, "{\"closing\": true}").status()).isEqualTo(200);
        try {
            assertThat(ruth.get("/api/periods").body()).contains("being closed");
            bean(Posting.class).post(App.ines(), underWay);
            assertThatThrownBy(() -> App.invoice("Bollard Foundry", "73.30")).hasMessageContaining("is being closed");
            assertThatThrownBy(() -> App.draft(invoice)).hasMessageContaining("is being closed");
            long payment = number("SELECT MAX(p.id) FROM payment p JOIN check_number n ON n.live_payment_id = p.id"
                    + " WHERE p.state = 'OUTSTANDING' AND p.ledger_date <= '2026-11-12'");
            assertThat(Http.signedIn("ines")
                            .post(
                                    "/api/undoing/preview",
                                    "{\"payments\": [{\"payment\": %d, \"invoices\": []}], \"date\": \"2026-11-12\", \"others\": {\"how\": \"OPEN\"}}"
                                            .formatted(payment))
                            .body())
                    .contains("November 2026 is being closed", "\"refused\":1");
            assertThat(ruth.get("/api/reports/closing?on=2026-11-01").body())
                    .contains("/ledger?view=hand-over", "/register?series=all&state=OUTSTANDING&from=2026-11-01");
        } finally {
            assertThat(ruth.post(path, "{\"closing\": false}").status()).isEqualTo(200);
        }
        App.invoice("Bollard Foundry", "73.30");
        assertThat(ruth.post("/api/periods/2025-12/closing", "{\"closing\": true}")
                        .body())
                .contains("is locked already");
    }
}
