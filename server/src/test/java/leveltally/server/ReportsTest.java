package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.paper.Measure;
import leveltally.core.paper.PageSize;
import leveltally.core.payments.PaymentId;
import leveltally.core.printing.Answer;
import leveltally.core.reports.Report;
import leveltally.core.reports.ReportPages;
import leveltally.server.outside.OutsideRow;
import leveltally.server.paper.Pdf;
import leveltally.server.posting.Posting;
import leveltally.server.reports.Reported;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The same list on a screen, on paper and as a file. */
class ReportsTest {
    private static final JsonMapper JSON = new JsonMapper();

    private static JsonNode lines(Http http, String path) {
        return JSON.readTree(http.get(path).body()).get("lines");
    }

    @Test
    void whatWillBePaidIsListedBeforeApproval() {
        BatchId batch = App.draft(
                App.invoice("Bollard Foundry", "61.00"),
                App.invoice("Bollard Foundry", "62.00"),
                App.invoice("Pelorus Charts", "63.50"));
        Http clerk = Http.signedIn("ines");
        String path = "/api/reports/payments-list";
        String of = "?batch=" + batch.value();
        JsonNode lines = lines(clerk, path + of);
        assertThat(lines.get(0).toString()).contains("GROUP", "Bollard Foundry", "by mail");
        assertThat(lines.get(3).toString()).contains("TOTAL", "2 entries", "123.00");
        assertThat(lines.get(lines.size() - 1).toString()).contains("TOTAL", "2 payments", "186.50");
        String csv = clerk.get(path + "/csv" + of, "text/csv").body();
        assertThat(csv).contains("total,2 payments,,186.50,0.00,186.50");
        assertThat(Http.signedIn("priya").get(path + of).status()).isEqualTo(200);
    }

    @Test
    void whatWasPrintedIsARegisterOfEverySheet() throws IOException {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "64.00"), App.invoice("Pelorus Charts", "65.00"));
        long first = App.nextNumber();
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run).subList(0, 1), Answer.SPOILED, "smeared");
        App.answer(batch, App.documents(run).subList(1, 2), Answer.GOOD, "");
        Http clerk = Http.signedIn("ines");
        String path = "/api/reports/run-register";
        String of = "?batch=" + batch.value();
        JsonNode lines = lines(clerk, path + of);
        assertThat(lines.get(0).toString()).contains("Ines Okafor", "Stand-in tray");
        assertThat(lines.get(1).toString()).contains("" + first, "64.00", "spoiled: smeared");
        assertThat(lines.toString()).contains("\"1 sheet\",\"\",\"65.00\",\"good\"", "\"64.00\",\"spoiled\"");
        assertThat(clerk.get(path + "/pdf" + of, "application/pdf").body()).startsWith("%PDF");
        long again = App.numbered(batch);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(lines(clerk, path + of).toString()).contains("2 sheets", "129.00");
    }

    @Test
    void whatWasPostedIsListedWithItsDebitsAndCredits() {
        BatchId batch = App.printed(App.invoice("Bollard Foundry", "67.00"), App.invoice("Pelorus Charts", "68.00"));
        bean(Posting.class).post(ines(), batch);
        Http priya = Http.signedIn("priya");
        String of = "?batch=" + batch.value();
        JsonNode lines = lines(priya, "/api/reports/posting-register" + of);
        assertThat(lines.get(lines.size() - 1).toString()).contains("2 payments", "135.00");
        assertThat(lines(priya, "/api/reports/posting-recap" + of).toString())
                .contains("2000 Payables\",\"2\",\"135.00\",\"\"", "TOTAL", "\"135.00\",\"135.00\"");
        assertThat(priya.get("/api/reports/posting-register").body()).contains("batch-missing");
        assertThat(priya.get("/api/reports/no-such").status()).isEqualTo(404);
        assertThat(priya.get("/api/reports/reportable?year=12").body()).contains("no-year");
    }

    @Test
    void aMonthSaysWhatKeepsItFromBeingLocked() {
        Http ruth = Http.signedIn("ruth");
        BigDecimal before = unposted(ruth);
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "69.00"));
        long run = App.numbered(batch);
        assertThat(ruth.get("/api/reports/closing?on=2026-11-01").body())
                .contains("it cannot be locked yet", "payments with a number that are not posted");
        assertThat(unposted(ruth)).isEqualTo(before.add(new BigDecimal("69.00")));
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(ruth.get("/api/reports/closing?on=2026-11-01").body())
                .contains("checks dated in it that the bank has not paid");
        assertThat(ruth.get("/api/reports/closing?on=1999-01-01").body()).contains("this month is not opened");
    }

    /** What stands in the way of locking the month, of USD. */
    private static BigDecimal unposted(Http http) {
        for (JsonNode line : lines(http, "/api/reports/closing?on=2026-11-01")) {
            JsonNode cells = line.get("cells");
            if (cells.get(0).asString().equals("payments with a number that are not posted")
                    && cells.get(3).asString().equals("USD")) {
                return new BigDecimal(cells.get(2).asString().replace(",", ""));
            }
        }
        return new BigDecimal("0.00");
    }

    /** As of whatever day, what was owed is what the ledger says. */
    @ParameterizedTest
    @ValueSource(strings = {"2025-12-31", "2026-03-31", "2026-10-15", "2026-11-12"})
    void whatWasOwedOnADayAgreesWithTheLedgerOfThatDay(String on) {
        JsonNode lines = lines(Http.signedIn("priya"), "/api/reports/aging?on=" + on);
        assertThat(lines.size()).isGreaterThan(3);
        assertThat(lines.toString()).contains("which agree").doesNotContain("off by");
        // document by document it is the same
        String documents = lines(Http.signedIn("priya"), "/api/reports/open-documents?on=" + on)
                .toString();
        assertThat(documents).contains("which agrees").doesNotContain("off by");
        String owed = lines.get(lines.size() - 1).get("cells").get(1).asString();
        assertThat(documents).contains("\"" + owed + "\"");
    }

    /** A document that was settled since is still open on the day on which it was. */
    @Test
    void whatWasOpenOnADayIsListedThen() {
        Http clerk = Http.signedIn("ines");
        String before =
                lines(clerk, "/api/reports/open-documents?on=2026-11-10").toString();
        assertThat(before).contains("LE-PF-88", "prepayment BDD-2701");
        String after = lines(clerk, "/api/reports/open-documents?on=2026-11-11").toString();
        assertThat(after).doesNotContain("prepayment LE-PF-88").contains("\"LE-PF-88\"", "840.00");
    }

    /** Today it is the register's; on an earlier day a check that cleared or was voided since is still there. */
    @Test
    void whatWasOutstandingOnADayIsWhatItWasThen() {
        long now =
                App.number("SELECT SUM(p.amount_minor) FROM payment p JOIN journal_entry j ON j.id = p.posted_entry_id"
                        + " WHERE p.bank_account_id = " + App.operations().value()
                        + " AND p.state IN ('OUTSTANDING', 'STOPPED')"
                        + " AND EXISTS (SELECT 1 FROM check_number n WHERE n.live_payment_id = p.id)"
                        + " AND j.ledger_date <= '2026-11-12'");
        String text = lines(Http.signedIn("priya"), "/api/reports/outstanding?on=2026-11-12")
                .toString();
        assertThat(text)
                .contains(leveltally.core.money.Money.ofMinor(now, "USD").toString());
        long cleared = App.number(
                "SELECT n.number FROM payment_event e JOIN check_number n ON n.live_payment_id = e.payment_id"
                        + " JOIN payment p ON p.id = e.payment_id JOIN journal_entry j ON j.id = p.posted_entry_id"
                        + " WHERE e.to_state = 'CLEARED' AND e.business_date > '2026-06-30' AND j.ledger_date <= '2026-06-30'"
                        + " ORDER BY n.number LIMIT 1");
        String june = lines(Http.signedIn("priya"), "/api/reports/outstanding?on=2026-06-30")
                .toString();
        assertThat(june).contains("\"" + cleared + "\"");
        assertThat(text).doesNotContain("\"" + cleared + "\"");
    }

    /** What stands on the paper is what stands on the screen. */
    @Test
    void thePaperSaysWhatTheScreenSays() throws IOException {
        BatchId batch = App.draft(App.invoice("Bollard Foundry", "66.25"));
        Report report = Reported.payments(batch);
        byte[] pdf = Pdf.of(report.title(), ReportPages.of(report, PageSize.LETTER, "foot", bean(Measure.class)));
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(new PDFTextStripper().getText(document))
                    .contains("What will be paid: Test batch", "Bollard Foundry", "66.25", "1 payment", "page 1 of 1");
        }
    }

    private static PaymentId paidInDecember() {
        BatchId batch = App.elsewhere(
                "Wires",
                new OutsideRow("FT DEC 1", LocalDate.of(2025, 12, 29), "Fathom Survey Partners", "5500", "90.00"));
        bean(Posting.class).post(ines(), batch);
        return new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
    }

    @Test
    void theControllerChoosesWhetherAYearThatWasReportedFalls() {
        // paid in December by wire, written down and undone a year later
        long payment = paidInDecember().value();
        bean(Undoing.class)
                .undo(
                        ines(),
                        new Wanted(
                                List.of(new Wanted.One(payment, List.of())),
                                App.TODAY,
                                Wanted.Fate.OPEN,
                                null,
                                "RET 1"),
                        "it came back");
        long year = App.number("SELECT paid_in FROM reported_payment WHERE id = ?", payment);
        long vendor = App.number("SELECT vendor_id FROM reported_payment WHERE id = ?", payment);
        String before = App.jdbc()
                .sql("SELECT reportable FROM vendor WHERE id = ?")
                .param(vendor)
                .query(String.class)
                .single();
        App.asRoot("UPDATE vendor SET reportable = 'SERVICES' WHERE id = " + vendor);
        Http ruth = Http.signedIn("ruth");
        String page = "/api/vendors/" + vendor;
        String list = "/api/earlier-years?year=" + year;
        String chosen = "{\"payments\": [%d], \"falls\": %s, \"reason\": \"%s\"}";
        String stood = ruth.get(page).body();
        assertThat(ruth.get(list).body()).contains("\"payment\":" + payment, "\"falls\":false");
        assertThat(Http.signedIn("ines")
                        .post("/api/earlier-years", chosen.formatted(payment, true, "x"))
                        .status())
                .isEqualTo(403);
        assertThat(ruth.post("/api/earlier-years", chosen.formatted(payment, true, " "))
                        .body())
                .contains("Say why");
        long standing =
                App.number("SELECT MIN(id) FROM payment WHERE posted_entry_id IS NOT NULL AND undone_entry_id IS NULL");
        assertThat(ruth.post("/api/earlier-years", chosen.formatted(standing, true, "no"))
                        .status())
                .isEqualTo(409);
        assertThat(ruth.post("/api/earlier-years", chosen.formatted(payment, true, "the form was corrected"))
                        .status())
                .isEqualTo(200);
        assertThat(ruth.get(list).body()).contains("\"falls\":true", "the form was corrected", "Ruth Castellane");
        assertThat(ruth.get(page).body()).isNotEqualTo(stood);
        // chosen again, the year is as it was reported
        assertThat(ruth.post("/api/earlier-years", chosen.formatted(payment, false, "it was not"))
                        .status())
                .isEqualTo(200);
        assertThat(ruth.get(page).body()).isEqualTo(stood);
        assertThat(App.number("SELECT COUNT(*) FROM year_choice WHERE payment_id = ?", payment))
                .isEqualTo(2);
        App.asRoot("UPDATE vendor SET reportable = '" + before + "' WHERE id = " + vendor);
    }

    @Test
    void whatWasPostedIsDividedOverTheJobsOfWhatItPaid() {
        var typed = List.of(
                new OutsideRow(
                        "FT JOBS 1", App.TODAY, "Fathom Survey Partners", "5500/PIER-9 70.00; 5400 30.01", "100.01"),
                new OutsideRow("FT JOBS 2", App.TODAY, "Ebb Tide Linen", "5400/PIER-9", "9.99"));
        BatchId batch = App.elsewhere("Wires", typed.toArray(OutsideRow[]::new));
        bean(Posting.class).post(ines(), batch);
        String lines = lines(Http.signedIn("priya"), "/api/reports/posting-jobs?batch=" + batch.value())
                .toString();
        assertThat(lines).contains("Job PIER-9", "\"79.99\"", "No job", "\"30.01\"", "\"110.00\"");
    }
}
