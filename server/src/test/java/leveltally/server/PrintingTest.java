package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.sql.Connection;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.company.Company;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.server.checks.Checks;
import leveltally.server.company.Companies;
import leveltally.server.posting.Posting;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.Printers;
import leveltally.server.printing.DrawnRun;
import leveltally.server.printing.HandingOver;
import leveltally.server.printing.Numbered;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.OwnNumbers;
import leveltally.server.printing.RunPages;
import leveltally.server.printing.TakingOut;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

class PrintingTest {
    private static final String BOLLARD = "Bollard Foundry";

    private static List<Long> numbers(BatchId batch) {
        return App.jdbc()
                .sql("SELECT n.number FROM check_number n JOIN payment p ON p.id = n.payment_id"
                        + " WHERE p.batch_id = ? ORDER BY n.number")
                .param(batch.value())
                .query(Long.class)
                .list();
    }

    private static Actor at(Actor who, Instant instant) {
        return new Actor(who.person(), who.name(), who.roles(), who.today(), instant, who.from());
    }

    @Test
    void oneTurnPerAccountAndAnIdleOneIsTakenOverWithAReason() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "15.00"));
        Turns turns = bean(Turns.class);
        Turn mine = turns.take(ines(), App.operations(), batch, "");
        assertThatThrownBy(() -> turns.take(App.tomas(), App.operations(), batch, "I am in a hurry"))
                .hasMessageContaining("Ines Okafor has the turn");
        Actor later = at(App.tomas(), Instant.now().plus(Duration.ofMinutes(16)));
        assertThatThrownBy(() -> turns.take(later, App.operations(), batch, " "))
                .hasMessageContaining("Say why");
        Turn his = turns.take(later, App.operations(), batch, "Ines went home");
        assertThat(his.serial()).isGreaterThan(mine.serial());
        assertThatThrownBy(() -> bean(Numbering.class).number(ines(), batch, mine.serial(), App.nextNumber(), ""))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Your turn to print is over");
        turns.giveBack(App.tomas(), App.operations(), his.serial());
    }

    @Test
    void skippedNumbersStayInTheRegisterWithTheirReason() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "16.00"));
        Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
        long next = App.nextNumber();
        Numbering numbering = bean(Numbering.class);
        assertThatThrownBy(() -> numbering.number(ines(), batch, turn.serial(), next + 2, ""))
                .hasMessageContaining("Say why");
        assertThatThrownBy(() -> numbering.number(ines(), batch, turn.serial(), next - 1, ""))
                .hasMessageContaining("was used already");
        long run = numbering
                .number(ines(), batch, turn.serial(), next + 2, "two sheets torn from the pad")
                .run();
        assertThat(App.number(
                        "SELECT COUNT(*) FROM check_number WHERE number IN (?, ?) AND state = 'UNACCOUNTED'",
                        next,
                        next + 1))
                .isEqualTo(2);
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    @Test
    void aJamLeavesBlankSheetsThatPrintOnTheirOwnNumbers() throws Exception {
        BatchId batch = App.approved(
                App.invoice(BOLLARD, "17.00"),
                App.invoice("Ironwrack Chain", "18.00"),
                App.invoice("Pelorus Charts", "19.00"));
        Http clerk = Http.signedIn("ines");
        clerk.post(
                "/api/bank-accounts/" + App.operations().value() + "/stand-in-printer",
                "{\"fault\":\"JAM\",\"sheet\":2}");
        long run = App.numbered(batch);
        App.handOver(run);
        List<Long> documents = App.documents(run);
        assertThat(App.jdbc()
                        .sql("SELECT outcome FROM tray_sheet WHERE document_id IN (?, ?, ?) ORDER BY document_id")
                        .params(documents)
                        .query(String.class)
                        .list())
                .containsExactly("PRINTED", "TORN", "BLANK");
        List<Long> before = numbers(batch);
        App.answer(batch, documents.subList(0, 1), Answer.GOOD, "");
        App.answer(batch, documents.subList(1, 2), Answer.SPOILED, "torn in the jam");
        App.answer(batch, documents.subList(2, 3), Answer.BLANK, "");
        long again = bean(OwnNumbers.class).print(ines(), batch);
        App.handOver(again);
        assertThat(numbers(batch)).isEqualTo(before);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        long replacement = App.numbered(batch);
        App.handOver(replacement);
        App.answer(batch, App.documents(replacement), Answer.GOOD, "");
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(3, 3, 0));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** As the tray is read: the last good one, the torn one, the blank rest; all of it or none. */
    @Test
    void manySheetsAreAnsweredByTheNumbersOnThem() {
        BatchId batch = App.approved(
                App.invoice(BOLLARD, "17.10"),
                App.invoice("Ironwrack Chain", "18.10"),
                App.invoice("Pelorus Charts", "19.10"));
        long first = App.nextNumber();
        App.handOver(App.numbered(batch));
        Http clerk = Http.signedIn("ines");
        String path = "/api/batches/" + batch.value() + "/answers-by-number";
        String body = "{\"good\":\"%s\",\"spoiled\":\"%s\",\"blank\":\"%s\",\"why\":\"%s\",\"callBack\":false}";
        assertThat(clerk.post(path, body.formatted(first + "-" + (first + 1), first + 1, first + 2, "torn"))
                        .body())
                .contains("named-twice");
        assertThat(clerk.post(path, body.formatted(first, first + 1, first + 2, ""))
                        .body())
                .contains("reason-missing");
        assertThat(clerk.post(path, body.formatted(first + "-" + (first + 3), "", "", ""))
                        .body())
                .contains("No sheet with the number " + (first + 3));
        assertThat(App.number(
                        "SELECT COUNT(*) FROM document d JOIN print_run r ON r.id = d.run_id WHERE r.batch_id = ?"
                                + " AND d.answer IS NOT NULL",
                        batch.value()))
                .isZero();
        assertThat(clerk.post(path, body.formatted(first, first + 1, first + 2, "torn"))
                        .status())
                .isEqualTo(200);
        assertThat(App.jdbc()
                        .sql("SELECT d.answer FROM document d JOIN check_number n ON n.id = d.check_number_id"
                                + " WHERE n.number BETWEEN ? AND ? AND n.live_payment_id IS NOT NULL OR n.number = ?"
                                + " ORDER BY n.number")
                        .params(first, first + 2, first + 1)
                        .query(String.class)
                        .list())
                .containsExactly("GOOD", "SPOILED", "BLANK");
        assertThat(clerk.post(path, body.formatted(first, "", "", "")).body()).contains("was answered");
        assertThat(clerk.post(
                                "/api/batches/" + batch.value() + "/print-on-own-numbers",
                                "{\"printer\":" + App.tray().value() + "}")
                        .status())
                .isEqualTo(200);
        assertThat(clerk.post(path, body.formatted(first + 2, "", "", "")).status())
                .isEqualTo(200);
        bean(Posting.class).post(ines(), batch);
        bean(TakingOut.class).takeOut(ines(), batch, Set.copyOf(unnumbered(batch)), false, "only tried");
    }

    private static List<ClaimId> unnumbered(BatchId batch) {
        return List.copyOf(bean(Checks.class).withoutNumber(batch).keySet());
    }

    @Test
    void aDamagedSheetPrintsAgainOnItsNumberWhereTheSeriesAllowsIt() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "27.00"), App.invoice("Ironwrack Chain", "28.00"));
        long run = App.numbered(batch);
        App.handOver(run);
        List<Long> documents = App.documents(run);
        List<Long> before = numbers(batch);
        List<Long> smeared = documents.subList(0, 1);
        assertThatThrownBy(() -> App.answer(batch, smeared, Answer.AGAIN, "smeared"))
                .hasMessageContaining("prints no number a second time");
        long series = App.number("SELECT series_id FROM check_number WHERE number = " + before.get(0));
        assertThat(Http.signedIn("ines")
                        .post("/api/series/" + series + "/reprints", "{\"allowed\": true}")
                        .status())
                .isEqualTo(403);
        Http administrator = Http.signedIn("joss");
        try {
            assertThat(administrator
                            .post("/api/series/" + series + "/reprints", "{\"allowed\": true}")
                            .status())
                    .isEqualTo(200);
            App.answer(batch, smeared, Answer.AGAIN, "smeared");
            App.answer(batch, documents.subList(1, 2), Answer.GOOD, "");
            // what waits for its second print is not posted
            assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(1, 1, 1));
            long again = bean(OwnNumbers.class).print(ines(), batch);
            App.handOver(again);
            assertThat(numbers(batch)).isEqualTo(before);
            assertThat(App.number("SELECT serial FROM document WHERE run_id = ?", again))
                    .isEqualTo(2);
            // the sheet that was destroyed says nothing about the one that came after it
            assertThatThrownBy(() -> App.answer(batch, smeared, Answer.SPOILED, "no stock"))
                    .hasMessageContaining("printed once more since");
            App.answer(batch, App.documents(again), Answer.GOOD, "");
            bean(Posting.class).post(ines(), batch);
            long number = App.number("SELECT id FROM check_number WHERE number = " + before.get(0));
            assertThat(Http.signedIn("priya").get("/api/checks/" + number).body())
                    .contains("damaged, to be printed again", "smeared");
            assertThat(bean(Proof.class).run().isClean()).isTrue();
        } finally {
            administrator.post("/api/series/" + series + "/reprints", "{\"allowed\": false}");
        }
    }

    @Test
    void numberedStockNeverPrintsANumberTwice() {
        long numbered = App.number("SELECT MIN(id) FROM number_series WHERE stock = 'NUMBERED'");
        assertThat(Http.signedIn("joss")
                        .post("/api/series/" + numbered + "/reprints", "{\"allowed\": true}")
                        .body())
                .contains("stand on its paper already");
    }

    @Test
    void aCrashBetweenNumbersAndPaperResumesWithTheSameNumbers() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "21.00"), App.invoice("Ironwrack Chain", "22.00"));
        long run = App.numbered(batch);
        List<Long> taken = numbers(batch);
        assertThatThrownBy(() -> App.answer(batch, App.documents(run), Answer.GOOD, ""))
                .hasMessageContaining("not handed to the printer yet");
        App.DATABASE.crash();
        assertThat(numbers(batch)).isEqualTo(taken);
        App.handOver(run);
        App.handOver(run);
        assertThat(App.number(
                        "SELECT COUNT(*) FROM tray_sheet t JOIN document d ON d.id = t.document_id WHERE d.run_id = ?",
                        run))
                .isEqualTo(2);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(numbers(batch)).isEqualTo(taken);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** The tray takes two seconds over its eighth sheet, and the database is gone by then: nobody knows, and nothing is lost. */
    @Test
    void theDatabaseGoneBetweenPageSevenAndEightLeavesEverySheetToItsNumber() throws Exception {
        InvoiceId[] invoices = App.jdbc()
                .sql(
                        "SELECT name FROM vendor WHERE method = 'CHECK' AND currency = 'USD' AND hold_reason IS NULL AND one_time = 0"
                                + " AND id IN (SELECT vendor_id FROM payment) ORDER BY name LIMIT 10")
                .query(String.class)
                .list()
                .stream()
                .map(vendor -> App.invoice(vendor, "31.70"))
                .toArray(InvoiceId[]::new);
        BatchId batch = App.approved(invoices);
        long run = App.numbered(batch);
        List<Long> taken = numbers(batch);
        long eighth = App.documents(run).get(7);
        App.asRoot("CREATE TRIGGER slow_sheet BEFORE INSERT ON tray_sheet FOR EACH ROW"
                + " SET @slept = IF(NEW.document_id = " + eighth + ", SLEEP(2), 0)");
        try {
            CompletableFuture<Void> handing = CompletableFuture.runAsync(() -> App.handOver(run));
            try (Connection root = App.DATABASE.root("leveltally")) {
                String asleep = "SELECT 1 FROM information_schema.processlist WHERE state = 'User sleep'";
                while (!root.createStatement().executeQuery(asleep).next()) {
                    assertThat(handing).isNotDone();
                    Thread.sleep(20);
                }
            }
            App.DATABASE.crash();
            assertThatThrownBy(handing::join).hasMessageContaining("Connection");
        } finally {
            App.asRoot("DROP TRIGGER slow_sheet");
        }
        assertThat(numbers(batch)).isEqualTo(taken);
        // it had begun, so nobody prints the run once more by mistake: somebody looks, and says what lies there
        App.handOver(run);
        assertThat(App.number(
                        "SELECT COUNT(*) FROM tray_sheet t JOIN document d ON d.id = t.document_id WHERE d.run_id = ?",
                        run))
                .isZero();
        List<Long> sheets = App.documents(run);
        App.answer(batch, sheets.subList(0, 7), Answer.GOOD, "");
        App.answer(batch, sheets.subList(7, 10), Answer.BLANK, "");
        long again = bean(OwnNumbers.class).print(ines(), batch);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(10, 10, 0));
        assertThat(numbers(batch)).isEqualTo(taken);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** What the stock has numbers for is printed; the others stay behind by name and can be taken out. */
    @Test
    void aSeriesThatEndsNumbersWhatItCan() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "32.10"), App.invoice("Pelorus Charts", "32.20"));
        long next = App.nextNumber();
        App.asRoot("UPDATE number_series SET last_number = " + next + " WHERE id = " + App.series());
        try {
            Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
            Numbered numbered = bean(Numbering.class).number(ines(), batch, turn.serial(), next, "");
            assertThat(numbered.behind())
                    .singleElement()
                    .satisfies(one -> assertThat(one.why()).contains("Pelorus Charts: the series ends with " + next));
            App.handOver(numbered.run());
            App.answer(batch, App.documents(numbered.run()), Answer.GOOD, "");
            Turn another = bean(Turns.class).take(ines(), App.operations(), batch, "");
            assertThatThrownBy(() -> bean(Numbering.class).number(ines(), batch, another.serial(), next + 1, ""))
                    .hasMessageContaining("the series ends with " + next);
            bean(Turns.class).giveBack(ines(), App.operations(), another.serial());
            bean(TakingOut.class)
                    .takeOut(ines(), batch, Set.of(numbered.behind().get(0).claim()), false, "the pad is used up");
            assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(1, 1, 0));
        } finally {
            App.asRoot("UPDATE number_series SET last_number = NULL WHERE id = " + App.series());
        }
    }

    @Test
    void aCrashBetweenHandingOverAndPaperIsAnsweredStillBlank() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "24.00"));
        long run = App.numbered(batch);
        HandingOver handingOver = bean(HandingOver.class);
        CompanyPrinter tray = bean(Printers.class).usable(App.tray());
        RunPages pages = bean(RunPages.class);
        assertThat(handingOver.begin(ines(), run, tray, pages.job(run, tray, List.of())))
                .isEmpty();
        DrawnRun drawn = pages.job(run, tray, App.documents(run));
        assertThat(handingOver.begin(ines(), run, tray, drawn)).isPresent();
        assertThat(handingOver.begin(App.tomas(), run, tray, drawn)).isEmpty();
        List<Long> taken = numbers(batch);
        App.answer(batch, App.documents(run), Answer.BLANK, "");
        long again = bean(OwnNumbers.class).print(ines(), batch);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(numbers(batch)).isEqualTo(taken);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @Test
    void theCopyIsMarkedAndCarriesEveryText() throws IOException {
        BatchId batch =
                App.approved(App.invoice("Shearwater Uniform Laundry and Repair of Skerrow Old Town", "1225.00"));
        long run = App.numbered(batch);
        App.handOver(run);
        Companies companies = bean(Companies.class);
        Company ours = companies.company();
        // a copy shows the day it was printed on, not the company of today
        companies.set(
                App.ruth(),
                new Company("Somebody Else", List.of("Far away"), ours.graceDays(), ours.staleDays()),
                companies.seen().version());
        try (PDDocument pdf = Loader.loadPDF(bean(RunPages.class).copy(run))) {
            String text = new PDFTextStripper().getText(pdf);
            assertThat(text)
                    .contains("NOT A CHECK")
                    .contains("Marrow Bay Ferries", "4 Ropewalk Quay")
                    .doesNotContain("Somebody Else", "Far away")
                    .contains("One thousand two hundred twenty-five and 00/100 dollars")
                    .contains("Shearwater Uniform Laundry and Repair of Skerrow Old Town");
        } finally {
            companies.set(App.ruth(), ours, companies.seen().version());
        }
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    @Test
    void everySheetIsAnsweredOnceAndCorrectedOnlyBeforePosting() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "23.00"));
        long run = App.numbered(batch);
        App.handOver(run);
        List<Long> documents = App.documents(run);
        assertThatThrownBy(() -> App.answer(batch, documents, Answer.SPOILED, " "))
                .hasMessageContaining("Say what happened");
        App.answer(batch, documents, Answer.GOOD, "");
        App.answer(batch, documents, Answer.GOOD, "");
        assertThatThrownBy(() -> App.answer(batch, documents, Answer.BLANK, ""))
                .hasMessageContaining("answered already");
        bean(Posting.class).post(ines(), batch);
        assertThatThrownBy(() -> App.answer(batch, documents, Answer.SPOILED, "smeared"))
                .hasMessageContaining("Void it instead");
    }
}
