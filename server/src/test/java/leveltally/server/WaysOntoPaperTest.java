package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.printers.PrinterId;
import leveltally.core.printers.PrinterKind;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.server.batches.ClaimRows;
import leveltally.server.posting.Posting;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.Printers;
import leveltally.server.printing.HandingOver;
import leveltally.server.printing.Printing;
import leveltally.server.printing.RunPages;
import leveltally.server.printing.Said;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** The queue of a real printing system, and pages that are opened: what each says, and that no sheet comes out twice. */
class WaysOntoPaperTest {
    private static final String BOLLARD = "Bollard Foundry";
    private static PrintSystem system;
    private static PrinterId laser;

    @BeforeAll
    static void aQueue() throws Exception {
        system = PrintSystem.start(App.PRINT_PORT);
        Http joss = Http.signedIn("joss");
        assertThat(joss.post("/api/printers", "{\"name\":\"Office laser\",\"queue\":\"" + PrintSystem.QUEUE + "\"}")
                        .status())
                .isEqualTo(200);
        laser = printer("Office laser");
    }

    @AfterAll
    static void away() throws IOException {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
        Http.signedIn("joss")
                .post(
                        "/api/printers/" + laser.value(),
                        "{\"name\":\"Office laser\",\"queue\":\"" + PrintSystem.QUEUE + "\",\"inUse\":false}");
        system.close();
    }

    private static PrinterId printer(String name) {
        return bean(Printers.class).all().stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .map(CompanyPrinter::id)
                .orElseThrow();
    }

    private static PrinterId own() {
        return bean(Printers.class).inUse().stream()
                .filter(one -> one.kind() == PrinterKind.OWN)
                .findFirst()
                .map(CompanyPrinter::id)
                .orElseThrow();
    }

    private static long print(BatchId batch, PrinterId on) {
        Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
        return bean(Printing.class)
                .print(ines(), batch, turn.serial(), App.nextNumber(), "", on)
                .run();
    }

    private static void answer(BatchId batch, long run, Answer answer, boolean callBack) {
        bean(Printing.class)
                .answer(
                        ines(),
                        batch,
                        App.documents(run).stream()
                                .map(one -> new Said(one, answer, "seen"))
                                .toList(),
                        callBack);
    }

    private static String outcome(long run) {
        return App.jdbc()
                .sql("SELECT COALESCE(outcome, 'none') FROM handing_over WHERE run_id = ? ORDER BY id DESC LIMIT 1")
                .param(run)
                .query(String.class)
                .single();
    }

    private static String view(BatchId batch) {
        return Http.signedIn("ines")
                .get("/api/batches/" + batch.value() + "/printing")
                .body();
    }

    private static void isDone(BatchId batch) {
        assertThat(bean(Posting.class).post(ines(), batch).postedNow()).isPositive();
    }

    @Test
    void aQueueTakesTheRunAndWhatComesOutSaysWhatTheClaimSays() throws Exception {
        BatchId batch = App.approved(App.invoice(BOLLARD, "1225.00"));
        long number = App.nextNumber();
        Files.write(system.tray(), new byte[0]);
        long run = print(batch, laser);
        assertThat(outcome(run)).isEqualTo("ACCEPTED");
        assertThat(view(batch)).contains("Office laser took them as job tray-");
        byte[] paper = system.printed();
        List<String> wanted = List.of(
                BOLLARD, "One thousand two hundred twenty-five and 00/100 dollars", "1,225.00", String.valueOf(number));
        try (var pdf = Loader.loadPDF(paper)) {
            assertThat(pdf.getNumberOfPages()).isEqualTo(1);
            assertThat(new PDFTextStripper().getText(pdf)).contains(wanted).doesNotContain("NOT A CHECK");
        }
        assertThat(readByAnother(paper)).contains(wanted).doesNotContain("NOT A CHECK");
        answer(batch, run, Answer.GOOD, false);
        isDone(batch);
    }

    /** A reader that shares no code with the writer. */
    private static String readByAnother(byte[] pdf) throws IOException, InterruptedException {
        Process reader = new ProcessBuilder("pdftotext", "-layout", "-enc", "UTF-8", "-", "-").start();
        reader.getOutputStream().write(pdf);
        reader.getOutputStream().close();
        String text = new String(reader.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(reader.waitFor()).isZero();
        return text;
    }

    @Test
    void whatAQueueRefusesIsGivenToAnotherPrinterOnTheSameNumber() throws Exception {
        BatchId batch = App.approved(App.invoice(BOLLARD, "31.00"));
        long next = App.nextNumber();
        system.refuse(true);
        long run;
        try {
            run = print(batch, laser);
        } finally {
            system.refuse(false);
        }
        assertThat(outcome(run)).isEqualTo("REFUSED");
        assertThat(view(batch)).contains("Office laser did not take them", "\"sent\":false");
        assertThatThrownBy(() -> answer(batch, run, Answer.GOOD, false))
                .hasMessageContaining("not handed to the printer yet");
        App.handOver(run);
        assertThat(outcome(run)).isEqualTo("ACCEPTED");
        assertThat(App.nextNumber()).isEqualTo(next + 1);
        answer(batch, run, Answer.GOOD, false);
        isDone(batch);
    }

    @Test
    void whatMayStillComeOutIsCalledBackBeforeItIsPrintedAnew() throws Exception {
        BatchId batch = App.approved(App.invoice(BOLLARD, "32.00"));
        Files.write(system.tray(), new byte[0]);
        system.hold(true);
        try {
            long run = print(batch, laser);
            assertThat(outcome(run)).isEqualTo("ACCEPTED");
            assertThatThrownBy(() -> answer(batch, run, Answer.BLANK, false))
                    .hasMessageContaining("of Office laser may still print these sheets");
            answer(batch, run, Answer.BLANK, true);
        } finally {
            system.hold(false);
        }
        assertThat(Files.size(system.tray())).isZero();
        long again = bean(Printing.class).printOnOwnNumbers(ines(), batch, laser);
        try (var pdf = Loader.loadPDF(system.printed())) {
            assertThat(pdf.getNumberOfPages()).isEqualTo(1);
        }
        answer(batch, again, Answer.GOOD, false);
        isDone(batch);
    }

    /** A check to somebody who is not paid any more must not lie in the tray an hour later. */
    @Test
    void whatIsTakenOutIsCalledBackToo() throws Exception {
        BatchId batch = App.approved(App.invoice(BOLLARD, "32.50"));
        Files.write(system.tray(), new byte[0]);
        Http clerk = Http.signedIn("ines");
        system.hold(true);
        try {
            print(batch, laser);
            long claim = bean(ClaimRows.class).of(batch).get(0).id().value();
            String body = "{\"claims\":[" + claim + "],\"spoiled\":false,\"why\":\"asked\",\"callBack\":%s}";
            String path = "/api/batches/" + batch.value() + "/take-out-payments";
            assertThat(clerk.post(path, body.formatted(false)).body()).contains("may still print these sheets");
            assertThat(clerk.post(path, body.formatted(true)).status()).isEqualTo(200);
        } finally {
            system.hold(false);
        }
        // its queue takes the next job only after whatever was before it
        BatchId next = App.approved(App.invoice("Pelorus Charts", "32.60"));
        long run = print(next, laser);
        try (var pdf = Loader.loadPDF(system.printed())) {
            assertThat(new PDFTextStripper().getText(pdf))
                    .contains("Pelorus Charts")
                    .doesNotContain(BOLLARD);
        }
        answer(next, run, Answer.GOOD, false);
        isDone(next);
    }

    @Test
    void aBreakWhileAQueueHasItLeavesItNotKnown() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "33.00"));
        long run = App.numbered(batch);
        CompanyPrinter at = bean(Printers.class).get(laser);
        assertThat(bean(HandingOver.class)
                        .begin(ines(), run, at, bean(RunPages.class).job(run, at, App.documents(run))))
                .isPresent();
        // the application ended here
        assertThat(view(batch)).contains("Office laser may have taken them");
        App.handOver(run);
        assertThat(App.number("SELECT COUNT(*) FROM handing_over WHERE run_id = ?", run))
                .isEqualTo(1);
        assertThatThrownBy(() -> answer(batch, run, Answer.SPOILED, false))
                .hasMessageContaining("Nobody knows whether Office laser has these sheets");
        answer(batch, run, Answer.BLANK, true);
        long again = bean(Printing.class).printOnOwnNumbers(ines(), batch, App.tray());
        answer(batch, again, Answer.GOOD, false);
        isDone(batch);
    }

    @Test
    void pagesOpenOnceAndBlankSheetsOpenAgainOnTheirOwnNumbers() throws Exception {
        BatchId batch = App.approved(App.invoice(BOLLARD, "34.00"), App.invoice("Ironwrack Chain", "35.00"));
        long first = App.nextNumber();
        Printing printing = bean(Printing.class);
        long run = print(batch, own());
        assertThatThrownBy(() -> printing.send(ines(), run, own())).hasMessageContaining("Open them here");
        assertThatThrownBy(() -> printing.open(ines(), run, App.tray())).hasMessageContaining("Pages are sent");
        assertThatThrownBy(() -> printing.open(App.ruth(), run, own())).isInstanceOf(Refusal.class);
        try (var pdf = Loader.loadPDF(printing.open(ines(), run, own()))) {
            assertThat(pdf.getNumberOfPages()).isEqualTo(2);
            assertThat(new PDFTextStripper().getText(pdf)).contains(String.valueOf(first), String.valueOf(first + 1));
        }
        assertThatThrownBy(() -> printing.open(ines(), run, own())).hasMessageContaining("opened or printed already");
        // the browser was closed before anything was printed
        answer(batch, run, Answer.BLANK, false);
        long again = printing.printOnOwnNumbers(ines(), batch, own());
        assertThat(printing.open(ines(), again, own())).isNotEmpty();
        answer(batch, again, Answer.GOOD, false);
        assertThat(App.nextNumber()).isEqualTo(first + 2);
        isDone(batch);
    }

    @Test
    void oneOfManyWhoAskAtOnceHasThePages() throws InterruptedException, ExecutionException {
        BatchId batch = App.approved(App.invoice(BOLLARD, "36.00"));
        long run = print(batch, own());
        Callable<Boolean> open = () -> {
            try {
                return bean(Printing.class).open(ines(), run, own()).length > 0;
            } catch (Refusal second) {
                assertThat(second.code()).isEqualTo("opened-already");
                return false;
            }
        };
        ExecutorService threads = Executors.newFixedThreadPool(6);
        try {
            int had = 0;
            for (Future<Boolean> one : threads.invokeAll(java.util.Collections.nCopies(6, open))) {
                had += one.get() ? 1 : 0;
            }
            assertThat(had).isEqualTo(1);
        } finally {
            threads.shutdown();
        }
        answer(batch, run, Answer.GOOD, false);
        isDone(batch);
    }

    @Test
    void whatAPrinterAnsweredIsNotChangedAndARunIsGivenOnce() {
        BatchId batch = App.approved(App.invoice(BOLLARD, "37.00"));
        long run = print(batch, App.tray());
        assertThatThrownBy(() -> App.jdbc()
                        .sql("UPDATE handing_over SET outcome = 'REFUSED' WHERE run_id = ?")
                        .param(run)
                        .update())
                .hasMessageContaining("what a printer answered is not changed");
        assertThatThrownBy(() -> App.jdbc()
                        .sql(
                                "INSERT INTO handing_over (id, run_id, printer_id, at, person_id) SELECT NEXT VALUE FOR work_seq,"
                                        + " run_id, printer_id, at, person_id FROM handing_over WHERE run_id = ?")
                        .param(run)
                        .update())
                .hasMessageContaining("held_run_id");
        answer(batch, run, Answer.GOOD, false);
        isDone(batch);
    }

    @Test
    void onlyAdministratorsSetUpPrintersAndOneStaysInUse() {
        Http joss = Http.signedIn("joss");
        String body = "{\"name\":\"%s\",\"queue\":\"%s\"}";
        assertThat(Http.signedIn("ruth")
                        .post("/api/printers", body.formatted("Mine", "mine"))
                        .status())
                .isEqualTo(403);
        assertThat(joss.post("/api/printers", body.formatted("office laser", "other"))
                        .body())
                .contains("Another printer is called office laser already");
        assertThat(joss.post("/api/printers", body.formatted("Bad", "-d other")).body())
                .contains("A queue's name is letters");
        assertThat(joss.post("/api/printers", body.formatted(" ", "other")).body())
                .contains("Say what people call this printer");
        assertThat(joss.post("/api/printers/" + App.tray().value(), "{\"name\":\"Stand-in tray\",\"queue\":\"\"}")
                        .status())
                .isEqualTo(400);
        assertThatThrownBy(() -> bean(Printers.class).usable(new PrinterId(1)))
                .hasMessageContaining("not in use any more");
    }
}
