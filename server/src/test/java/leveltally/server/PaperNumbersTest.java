package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.server.approval.Sending;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Making;
import leveltally.server.posting.Posting;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.Part;
import leveltally.server.printing.Renumbering;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
import leveltally.server.selection.DueQuestion;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** The paper and the numbers that were reckoned with are two things: found again, printed in parts, fed together. */
class PaperNumbersTest {
    private static long next(BankAccountId account) {
        return App.number(
                "SELECT next_number FROM series_of_account WHERE bank_account_id = ? AND stock <> 'BY_HAND'",
                account.value());
    }

    private static BankAccountId works() {
        return new BankAccountId(App.number("SELECT id FROM bank_account WHERE name = 'Harbour Works'"));
    }

    private static BatchId approved(BankAccountId account, List<InvoiceId> invoices) {
        DueQuestion question = DueQuestion.of(account.value(), App.CHECK_DATE.toString(), "2000-01-01", null)
                .marked(
                        null,
                        invoices.stream().map(id -> String.valueOf(id.value())).collect(Collectors.joining(".")));
        BatchId batch = bean(Making.class).make(ines(), App.batch("On its paper", question));
        bean(Sending.class).send(ines(), batch, App.version(batch));
        App.approve(batch);
        return batch;
    }

    private static long number(BankAccountId account, BatchId batch, long inTray, String reason, Set<ClaimId> only) {
        Turn turn = bean(Turns.class).take(ines(), account, batch, "");
        return bean(Numbering.class)
                .number(ines(), batch, turn.serial(), inTray, reason, new Part(only, false))
                .run();
    }

    /** Number, state and payee as the register has them. */
    private static List<String> register(BankAccountId account, long from) {
        return App.jdbc()
                .sql("SELECT CONCAT(n.number, ' ', n.state, ' ', COALESCE(p.payee, '')) FROM check_number n"
                        + " LEFT JOIN payment p ON p.id = n.live_payment_id JOIN series_of_account s ON s.id = n.series_id"
                        + " WHERE s.bank_account_id = ? AND n.number >= ? ORDER BY n.number")
                .params(account.value(), from)
                .query(String.class)
                .list();
    }

    @AfterAll
    static void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static List<InvoiceId> three(String cents) {
        return List.of(
                App.invoice("Bollard Foundry", "51." + cents),
                App.invoice("Ironwrack Chain", "52." + cents),
                App.invoice("Pelorus Charts", "53." + cents));
    }

    @Test
    void aBatchIsPrintedInParts() {
        BatchId batch = App.approved(three("10").toArray(InvoiceId[]::new));
        ClaimId second = bean(ClaimRows.class).of(batch).get(1).id();
        long first = next(App.operations());
        long part = number(App.operations(), batch, first, "", Set.of(second));
        assertThat(register(App.operations(), first)).containsExactly(first + " TAKEN Ironwrack Chain");
        assertThatThrownBy(() -> number(App.operations(), batch, first + 1, "", Set.of(second)))
                .hasMessageContaining("has its number already");
        long rest = number(App.operations(), batch, first + 1, "", Set.of());
        assertThat(register(App.operations(), first + 1))
                .containsExactly((first + 1) + " TAKEN Bollard Foundry", (first + 2) + " TAKEN Pelorus Charts");
        App.handOver(part);
        App.handOver(rest);
        App.answer(batch, App.documents(part), Answer.GOOD, "");
        App.answer(batch, App.documents(rest), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    /** So that nobody sorts the tray: first what is mailed, then what is handed over, then the courier's. */
    @Test
    void theOrderMayGoByHowTheChecksGo() {
        BatchId batch = App.approved(three("15").toArray(InvoiceId[]::new));
        List<Claim> claims = bean(ClaimRows.class).of(batch);
        Http clerk = Http.signedIn("ines");
        String path = "/api/batches/" + batch.value() + "/delivery";
        String body = "{\"claims\":[%d],\"delivery\":\"%s\"}";
        assertThat(clerk.post(path, body.formatted(claims.get(0).id().value(), "COURIER"))
                        .body())
                .contains("\"goes\":\"by courier\"", "\"goes\":\"by mail\"");
        clerk.post(path, body.formatted(claims.get(1).id().value(), "HAND_OVER"));
        assertThat(clerk.post(path, body.formatted(1, "COURIER")).status()).isEqualTo(404);
        assertThat(Http.signedIn("maren")
                        .post(path, body.formatted(claims.get(0).id().value(), "MAIL"))
                        .status())
                .isEqualTo(403);
        long first = next(App.operations());
        Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
        long run = bean(Numbering.class)
                .number(ines(), batch, turn.serial(), first, "", new Part(Set.of(), true))
                .run();
        assertThat(register(App.operations(), first))
                .containsExactly(
                        first + " TAKEN Pelorus Charts",
                        (first + 1) + " TAKEN Ironwrack Chain",
                        (first + 2) + " TAKEN Bollard Foundry");
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    @Test
    void anUnaccountedNumberIsExplainedAndUsedWhenItsPaperIsFoundAgain() {
        BatchId batch = App.approved(three("20").toArray(InvoiceId[]::new));
        long first = next(App.operations());
        ClaimId one = bean(ClaimRows.class).of(batch).get(0).id();
        long run = number(App.operations(), batch, first + 2, "two sheets missing", Set.of(one));
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        long id = App.number(
                "SELECT n.id FROM check_number n WHERE n.number = ? AND n.series_id = ?", first, App.series());
        Http clerk = Http.signedIn("ines");
        assertThat(clerk.post("/api/checks/" + id + "/explain", "{\"why\":\"behind the cupboard\"}")
                        .body())
                .contains("behind the cupboard");
        assertThat(clerk.post("/api/checks/" + id + "/explain", "{\"why\":\" \"}")
                        .status())
                .isEqualTo(422);
        long used = App.number(
                "SELECT n.id FROM check_number n WHERE n.number = ? AND n.series_id = ?", first + 2, App.series());
        assertThat(clerk.post("/api/checks/" + used + "/explain", "{\"why\":\"no\"}")
                        .body())
                .contains("Only an unaccounted number is explained");
        // one sheet too few for what waits
        assertThatThrownBy(() -> number(App.operations(), batch, first + 1, "", Set.of()))
                .hasMessageContaining("1 number is unaccounted, for 2 payments");
        long again = number(App.operations(), batch, first, "", Set.of());
        assertThat(register(App.operations(), first).subList(0, 3))
                .containsExactly(
                        first + " TAKEN Ironwrack Chain",
                        (first + 1) + " TAKEN Pelorus Charts",
                        (first + 2) + " PRINTED Bollard Foundry");
        assertThat(next(App.operations())).isEqualTo(first + 3);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    /** A number that was printed on once, stayed blank and was given up, carries another payment's sheet later. */
    @Test
    void aNumberGivenUpIsRenderedOnceMore() {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "54.30"), App.invoice("Pelorus Charts", "55.30"));
        long first = next(App.operations());
        long run = number(App.operations(), batch, first, "", Set.of());
        App.handOver(run);
        List<Long> sheets = App.documents(run);
        App.answer(batch, sheets.subList(0, 1), Answer.BLANK, "");
        App.answer(batch, sheets.subList(1, 2), Answer.GOOD, "");
        bean(leveltally.server.printing.Answers.class).releaseBlanks(ines(), batch, Set.copyOf(sheets), "lost");
        long again = number(App.operations(), batch, first, "", Set.of());
        assertThatThrownBy(() -> App.answer(batch, sheets.subList(0, 1), Answer.SPOILED, "torn"))
                .isInstanceOf(leveltally.core.Refusal.class);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    /** On blank stock it is we who print the number, so a sheet that is lost must not get a twin. */
    @Test
    void aNumberWhoseSheetIsLostIsNotPrintedOnceMore() {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "54.35"), App.invoice("Pelorus Charts", "55.35"));
        long first = next(App.operations());
        ClaimId lost = bean(ClaimRows.class).of(batch).get(0).id();
        long run = number(App.operations(), batch, first, "", Set.of(lost));
        App.handOver(run);
        bean(leveltally.server.printing.TakingOut.class).takeOut(ines(), batch, Set.of(lost), false, "sheet lost");
        assertThatThrownBy(() -> number(App.operations(), batch, first, "", Set.of()))
                .hasMessageContaining("it would be there twice");
        long other = number(App.operations(), batch, first + 1, "", Set.of());
        App.handOver(other);
        App.answer(batch, App.documents(other), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    @Test
    void fromASheetOnThePaperSaysAnotherNumber() {
        BatchId batch = approved(works(), three("40"));
        long first = next(works());
        long run = number(works(), batch, first, "", Set.of());
        App.handOver(run);
        List<Long> sheets = App.documents(run);
        App.answer(batch, sheets.subList(0, 1), Answer.GOOD, "");
        Renumbering renumbering = bean(Renumbering.class);
        assertThatThrownBy(() -> renumbering.renumber(ines(), batch, sheets.get(1), first + 2, " "))
                .hasMessageContaining("Say how it came about");
        assertThatThrownBy(() -> renumbering.renumber(ines(), batch, sheets.get(0), first + 1, "two fed at once"))
                .hasMessageContaining("is answered or taken out already");
        renumbering.renumber(ines(), batch, sheets.get(1), first + 2, "two fed at once");
        assertThat(register(works(), first))
                .containsExactly(
                        first + " PRINTED Bollard Foundry",
                        (first + 1) + " SPOILED ",
                        (first + 2) + " TAKEN Ironwrack Chain",
                        (first + 3) + " TAKEN Pelorus Charts");
        assertThat(next(works())).isEqualTo(first + 4);
        assertThat(Http.signedIn("ines")
                        .get("/api/batches/" + batch.value() + "/printing")
                        .body())
                .contains("\"number\":" + (first + 3));
        App.answer(batch, sheets.subList(1, 3), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThatThrownBy(() -> renumbering.renumber(ines(), batch, sheets.get(1), first + 5, "again"))
                .hasMessageContaining("is answered");
    }

    /** What is said beside a check goes on belonging to it. */
    @Test
    void adviceFollowsItsCheckToTheNumberOnThePaper() {
        List<InvoiceId> many = new java.util.ArrayList<>();
        for (int i = 0; i < 30; i++) {
            many.add(App.invoice("Bollard Foundry", "1." + (10 + i)));
        }
        many.add(App.invoice("Pelorus Charts", "58.40"));
        BatchId batch = approved(works(), many);
        long first = next(works());
        long run = number(works(), batch, first, "", Set.of());
        App.handOver(run);
        bean(Renumbering.class).renumber(ines(), batch, App.documents(run).get(0), first + 1, "one fed empty");
        assertThat(App.jdbc()
                        .sql(
                                "SELECT CONCAT(d.kind, ' ', n.number) FROM document d JOIN check_number n ON n.id = d.check_number_id"
                                        + " JOIN payment p ON p.id = d.payment_id WHERE p.batch_id = ? AND p.payee = 'Bollard Foundry'"
                                        + " ORDER BY 1")
                        .param(batch.value())
                        .query(String.class)
                        .list())
                .containsExactly("ADVICE " + (first + 1), "CHECK " + (first + 1));
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    /** More numbers passed over than the run has sheets: those that no sheet had are unaccounted. */
    @Test
    void aWholePacketMayBePassedOver() {
        BatchId batch = approved(works(), List.of(App.invoice("Bollard Foundry", "56.40")));
        long first = next(works());
        long run = number(works(), batch, first, "", Set.of());
        App.handOver(run);
        bean(Renumbering.class)
                .renumber(ines(), batch, App.documents(run).get(0), first + 3, "another packet was in the tray");
        assertThat(register(works(), first))
                .containsExactly(
                        first + " SPOILED ",
                        (first + 1) + " UNACCOUNTED ",
                        (first + 2) + " UNACCOUNTED ",
                        (first + 3) + " TAKEN Bollard Foundry");
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    @Test
    void whatWePrintOurselvesIsNotRenumbered() {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "57.40"));
        long run = App.numbered(batch);
        App.handOver(run);
        assertThatThrownBy(() -> bean(Renumbering.class)
                        .renumber(ines(), batch, App.documents(run).get(0), App.nextNumber() + 1, "why not"))
                .hasMessageContaining("printed by us");
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    /** From the label of a box to what is to be expected in the tray. */
    @Test
    void boxesOfNumberedStockAreReceivedOpenedAndForetellTheTray() {
        long series = App.number("SELECT id FROM series_of_account WHERE account_name = 'Harbour Works'");
        long next = next(works());
        Http clerk = Http.signedIn("tomas");
        String path = "/api/series/" + series + "/stock";
        String body = "{\"first\":%d,\"last\":%d}";
        assertThat(clerk.post(path, body.formatted(next, next + 99)).body()).contains("which nobody opened yet");
        assertThat(clerk.post(path, body.formatted(next + 50, next + 149)).body())
                .contains("came in a box already");
        assertThat(clerk.post(path, body.formatted(next + 200, next + 299)).body())
                .contains("\"gaps\":[{\"first\":" + (next + 100) + ",\"last\":" + (next + 199) + "}]", "\"left\":200");
        long box = App.number("SELECT id FROM stock_box WHERE series_id = ? AND first_number = ?", series, next);
        assertThat(clerk.post(path + "/" + box + "/open", "").body()).contains(next + " is next in it");
        assertThat(clerk.post(path + "/" + box + "/open", "").status()).isEqualTo(200);
        assertThat(Http.signedIn("priya").post(path, body.formatted(9, 9)).status())
                .isEqualTo(403);
        assertThat(clerk.post("/api/series/" + App.series() + "/stock", body.formatted(1, 9))
                        .body())
                .contains("Blank stock has no numbers");
        assertThatThrownBy(() -> App.jdbc()
                        .sql(
                                "INSERT INTO stock_box (id, series_id, first_number, last_number, received_on, received_by)"
                                        + " SELECT NEXT VALUE FOR work_seq, series_id, first_number + 1, last_number, received_on,"
                                        + " received_by FROM stock_box WHERE id = ?")
                        .param(box)
                        .update())
                .hasMessageContaining("a number lies in one box");
    }
}
