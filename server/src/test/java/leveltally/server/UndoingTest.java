package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Questions;
import leveltally.server.voiding.Stops;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import leveltally.server.voiding.Wanted.Fate;
import leveltally.server.voiding.Wanted.How;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Undoing posted payments: each invoice with its own fate, several in one deed, by two where invoices are cancelled. */
class UndoingTest {
    private static final LocalDate ON = App.CHECK_DATE;
    private static int cents = 11;

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    /** The check date lies a day ahead of the tests' business day. */
    private static Actor then(Actor who) {
        return new Actor(who.person(), who.name(), who.roles(), ON, Instant.now(), who.from());
    }

    private static String amount(int whole) {
        return whole + "." + cents++;
    }

    private static PaymentId posted(InvoiceId... invoices) {
        BatchId batch = App.printed(invoices);
        bean(Posting.class).post(ines(), batch);
        return new PaymentId(number("SELECT MIN(id) FROM payment WHERE batch_id = ?", batch.value()));
    }

    private static long open(InvoiceId invoice) {
        return number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value());
    }

    private static String state(PaymentId payment) {
        return App.jdbc()
                .sql("SELECT state FROM payment WHERE id = ?")
                .param(payment.value())
                .query(String.class)
                .single();
    }

    private static Fate oneAccount(String code) {
        return new Fate(How.ONE_ACCOUNT, number("SELECT id FROM ledger_account WHERE code = ?", code), null);
    }

    private static Wanted all(Fate others, PaymentId... payments) {
        List<Wanted.One> each = new ArrayList<>();
        for (PaymentId payment : payments) {
            each.add(new Wanted.One(payment.value(), List.of()));
        }
        return new Wanted(each, ON, others, null, null);
    }

    private static long net(PaymentId payment, String code) {
        return number(
                "SELECT COALESCE(SUM(l.debit_minor - l.credit_minor), 0) FROM payment p"
                        + " JOIN journal_line l ON l.entry_id = p.undone_entry_id"
                        + " JOIN ledger_account a ON a.id = l.account_id AND a.code = ? WHERE p.id = ?",
                code,
                payment.value());
    }

    @Test
    void ofTwoInvoicesOneComesBackHeldAndOneIsCancelledByTwo() {
        InvoiceId kept = App.invoice("Bollard Foundry", "310.40");
        InvoiceId gone = App.invoice("Bollard Foundry", "120.05");
        PaymentId payment = posted(kept, gone);
        Wanted wanted = new Wanted(
                List.of(new Wanted.One(
                        payment.value(),
                        List.of(new Wanted.Single(gone.value(), new Fate(How.OWN_LINES, null, null))))),
                ON,
                new Fate(How.HELD, null, "sent to the wrong yard"),
                null,
                null);
        Undoing undoing = bean(Undoing.class);
        Undoing.Asked asked = undoing.undo(then(ines()), wanted, "wrong yard");
        assertThat(asked.waits()).isTrue();
        assertThat(state(payment)).isEqualTo("OUTSTANDING");
        // nothing else is asked of it meanwhile
        assertThatThrownBy(() -> undoing.undo(then(App.tomas()), Wanted.broughtBack(payment, ON), "twice"))
                .hasMessageContaining("waits for a second person already");
        // whoever asked, prepared or only clerks does not agree
        assertThatThrownBy(() -> bean(Questions.class).agree(then(ines()), asked.id()))
                .isInstanceOf(Refusal.class);
        bean(Questions.class).agree(then(App.maren()), asked.id());
        assertThat(state(payment)).isEqualTo("VOIDED");
        assertThat(open(kept)).isEqualTo(31_040);
        assertThat(open(gone)).isZero();
        assertThat(App.jdbc()
                        .sql("SELECT hold_reason FROM invoice WHERE id = ?")
                        .param(kept.value())
                        .query(String.class)
                        .single())
                .isEqualTo("sent to the wrong yard");
        assertThat(net(payment, "1010")).isEqualTo(43_045);
        assertThat(net(payment, "2000")).isEqualTo(-31_040);
        assertThat(net(payment, "5200")).isEqualTo(-12_005);
        assertThatThrownBy(() -> bean(Questions.class).agree(then(App.maren()), asked.id()))
                .hasMessageContaining("waits for nobody any more");
    }

    @Test
    void againstOneAccountAndNotAgainstCash() {
        PaymentId payment = posted(App.invoice("Pelorus Charts", amount(214)));
        Undoing undoing = bean(Undoing.class);
        assertThatThrownBy(() -> undoing.undo(then(ines()), all(oneAccount("1010"), payment), "recovered"))
                .hasMessageContaining("is an account of cash");
        assertThatThrownBy(() ->
                        undoing.undo(then(ines()), all(new Fate(How.ONE_ACCOUNT, null, null), payment), "recovered"))
                .hasMessageContaining("Choose the account");
        Undoing.Asked asked = undoing.undo(then(ines()), all(oneAccount("5300"), payment), "recovered");
        assertThatThrownBy(() -> bean(Questions.class).refuse(then(App.maren()), asked.id(), " "))
                .hasMessageContaining("Say why you do not agree");
        bean(Questions.class).refuse(then(App.maren()), asked.id(), "the vendor still wants it");
        assertThat(state(payment)).isEqualTo("OUTSTANDING");
        Undoing.Asked again = undoing.undo(then(ines()), all(oneAccount("5300"), payment), "recovered after all");
        bean(Questions.class).refuse(then(ines()), again.id(), "");
        Undoing.Asked last = undoing.undo(then(ines()), all(oneAccount("5300"), payment), "really recovered");
        bean(Questions.class).agree(then(App.aldo()), last.id());
        assertThat(net(payment, "5300")).isNegative();
        assertThat(net(payment, "2000")).isZero();
    }

    @Test
    void severalInOneDeedAllOrNone() {
        PaymentId first = posted(App.invoice("Bollard Foundry", amount(61)));
        PaymentId second = posted(App.invoice("Pelorus Charts", amount(62)));
        Undoing undoing = bean(Undoing.class);
        undoing.undo(then(ines()), Wanted.broughtBack(first, ON), "alone");
        assertThatThrownBy(() -> undoing.undo(then(ines()), all(Fate.OPEN, second, first), "both"))
                .hasMessageContaining("is voided");
        assertThat(state(second)).isEqualTo("OUTSTANDING");
        PaymentId third = posted(App.invoice("Ironwrack Chain", amount(63)));
        undoing.undo(then(ines()), all(Fate.OPEN, second, third), "both lost in the mail");
        assertThat(state(second) + state(third)).isEqualTo("VOIDEDVOIDED");
        assertThat(number("SELECT COUNT(*) FROM bank_event e JOIN check_number n ON n.id = e.check_number_id"
                        + " WHERE e.kind = 'VOID' AND n.payment_id IN (" + second.value() + ", " + third.value() + ")"))
                .isEqualTo(2);
    }

    @Test
    void whatComesBackGoesStraightIntoADraft() {
        InvoiceId invoice = App.invoice("Bollard Foundry", amount(71));
        PaymentId payment = posted(invoice);
        BatchId draft = App.draft(App.invoice("Pelorus Charts", amount(72)));
        bean(Undoing.class)
                .undo(
                        then(ines()),
                        new Wanted(
                                List.of(new Wanted.One(payment.value(), List.of())),
                                ON,
                                Fate.OPEN,
                                draft.value(),
                                null),
                        "another date");
        assertThat(number(
                        "SELECT COUNT(*) FROM reservation WHERE invoice_id = ? AND batch_id = ?",
                        invoice.value(),
                        draft.value()))
                .isOne();
        bean(Withdrawing.class).withdraw(ines(), draft, App.version(draft));
    }

    /** The other half of an invoice stands in a batch: bringing back is possible, cancelling is not. */
    @Test
    void whatIsPaidInPartElsewhereIsNotCancelledMeanwhile() {
        InvoiceId invoice = App.invoice("Bollard Foundry", "500.00");
        BatchId part = App.draft(invoice);
        bean(Drafting.class).pay(ines(), part, App.version(part), invoice, "200.00");
        bean(leveltally.server.approval.Sending.class).send(ines(), part, App.version(part));
        App.approve(part);
        long run = App.numbered(part);
        App.handOver(run);
        App.answer(part, App.documents(run), leveltally.core.printing.Answer.GOOD, "");
        bean(Posting.class).post(ines(), part);
        PaymentId payment = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", part.value()));
        BatchId rest = App.draft(invoice);
        Undoing undoing = bean(Undoing.class);
        assertThatThrownBy(() -> undoing.undo(then(ines()), all(new Fate(How.OWN_LINES, null, null), payment), "wrong"))
                .hasMessageContaining("stands in the batch “Test batch”");
        undoing.undo(then(ines()), Wanted.broughtBack(payment, ON), "wrong");
        assertThat(open(invoice)).isEqualTo(50_000);
        bean(Withdrawing.class).withdraw(ines(), rest, App.version(rest));
    }

    @Test
    void whatIsShownIsWhatIsWritten() {
        PaymentId payment = posted(App.invoice("Pelorus Charts", "88.80"));
        Http ines = Http.signedIn("ines");
        String asked = "{\"payments\":[{\"payment\":" + payment.value()
                + ",\"invoices\":[]}],\"date\":\"%s\",\"others\":{\"how\":\"%s\"}}";
        // dated on its own day, which has not come for who asks: it says from when on
        assertThat(ines.post("/api/undoing/preview", asked.formatted(ON, "OPEN"))
                        .body())
                .contains("a day that has not come");
        assertThat(ines.post("/api/undoing/preview", asked.formatted(ON, "SOMEHOW"))
                        .status())
                .isEqualTo(400);
        for (String odd : List.of(
                "{\"payments\":[null],\"others\":{\"how\":\"OPEN\"}}",
                "{\"payments\":[{\"payment\":1,\"invoices\":[null]}],\"others\":{\"how\":\"OPEN\"}}")) {
            assertThat(ines.post("/api/undoing/preview", odd).status()).as(odd).isIn(400, 422);
        }
        assertThat(ines.post("/api/stops", "{\"payments\":[null],\"reason\":\"x\"}")
                        .status())
                .isIn(400, 422);
        assertThat(ines.post("/api/undoing/preview", "{\"payments\":[],\"others\":{\"how\":\"OPEN\"}}")
                        .status())
                .isIn(400, 422);
        assertThat(ines.post(
                                "/api/undoing/preview",
                                asked.replace("" + payment.value(), "999999999").formatted(ON, "OPEN"))
                        .body())
                .contains("no-payment");
        JsonNode demo = JsonMapper.builder()
                .build()
                .readTree(ines.post(
                                "/api/undoing/preview",
                                asked.replace("" + payment.value(), "" + outstanding())
                                        .formatted(App.TODAY, "OWN_LINES"))
                        .body());
        assertThat(demo.get("byTwo").asBoolean()).isTrue();
        JsonNode one = demo.get("payments").get(0);
        assertThat(one.get("refused") == null || one.get("refused").isNull()).isTrue();
        assertThat(one.get("lines").size()).isGreaterThan(1);
        assertThat(one.get("items").get(0).get("becomes").asString()).isEqualTo("cancelled");
        assertThat(demo.get("months").size()).isPositive();
        bean(Undoing.class).undo(then(ines()), Wanted.broughtBack(payment, ON), "done with");
    }

    private static long outstanding() {
        return number(
                "SELECT MAX(p.id) FROM payment p JOIN check_number n ON n.live_payment_id = p.id AND n.state = 'PRINTED'"
                        + " WHERE p.state = 'OUTSTANDING' AND p.ledger_date <= ?",
                App.TODAY);
    }

    @Test
    void aStopIsConfirmedByTheBankAndLiftedByTwo() {
        PaymentId payment = posted(App.invoice("Bollard Foundry", amount(91)));
        Stops stops = bean(Stops.class);
        assertThatThrownBy(() -> stops.stop(then(ines()), List.of(payment), " "))
                .hasMessageContaining("Say why");
        stops.stop(then(ines()), List.of(payment), "lost in the mail");
        assertThat(state(payment)).isEqualTo("STOPPED");
        assertThatThrownBy(() -> stops.stop(then(ines()), List.of(payment), "again"))
                .hasMessageContaining("is stopped, so it cannot become stopped");
        assertThatThrownBy(() -> stops.confirm(then(ines()), payment, ON.plusDays(1), "S-1", null))
                .hasMessageContaining("The bank confirmed it on a day from");
        assertThatThrownBy(() -> stops.confirm(then(ines()), payment, ON, " ", null))
                .hasMessageContaining("reference");
        stops.confirm(then(ines()), payment, ON, "S-4711", ON.plusMonths(6));
        String slip = Http.signedIn("ines")
                .get("/api/checks/" + number("SELECT id FROM check_number WHERE live_payment_id = ?", payment.value()))
                .body();
        assertThat(slip).contains("S-4711", "stop until Thu 13 May 2027", "\"undoing\":null");
        long asked = stops.askToLift(then(ines()), payment, "it turned up");
        assertThatThrownBy(() -> bean(Undoing.class).undo(then(ines()), Wanted.broughtBack(payment, ON), "meanwhile"))
                .hasMessageContaining("waits for a second person");
        assertThatThrownBy(() -> bean(Questions.class).agree(then(ines()), asked))
                .isInstanceOf(Refusal.class);
        bean(Questions.class).agree(then(App.aldo()), asked);
        assertThat(state(payment)).isEqualTo("OUTSTANDING");
        // the bank heard of the issue only: a stop and its end are no events
        assertThat(number(
                        "SELECT COUNT(*) FROM bank_event e JOIN check_number n ON n.id = e.check_number_id WHERE n.payment_id = ?",
                        payment.value()))
                .isOne();
        // stopped once more, and voided as it is
        stops.stop(then(ines()), List.of(payment), "gone again");
        assertThatThrownBy(() -> App.asRoot("UPDATE payment SET state = 'OUTSTANDING' WHERE id = " + payment.value()))
                .hasMessageContaining("lifted by two");
        bean(Undoing.class).undo(then(ines()), Wanted.broughtBack(payment, ON), "never found");
        assertThat(number("SELECT COUNT(*) FROM standing_stop WHERE payment_id = ?", payment.value()))
                .isZero();
    }

    /** Whatever a service would do: the database wants two people before an invoice is cancelled with its payment. */
    @Test
    void theDatabaseHoldsItItself() throws SQLException {
        long id = number("SELECT NEXT VALUE FOR work_seq");
        String undoing =
                "INSERT INTO undoing (id, kind, reason, content, by_two, state, asked_by, asked_at, asked_on, decided_by,"
                        + " decided_at) SELECT " + id
                        + ", 'UNDO', 'x', '{}', %s, '%s', p.id, NOW(6), CURRENT_DATE, %s, %s"
                        + " FROM person p WHERE p.sign_in = 'ines'";
        try (Connection application = App.DATABASE.application()) {
            for (String sql : List.of(
                    undoing.formatted("TRUE", "DONE", "p.id", "NOW(6)"),
                    undoing.formatted("TRUE", "DONE", "NULL", "NOW(6)"),
                    undoing.formatted("FALSE", "ASKED", "NULL", "NOW(6)"),
                    "DELETE FROM undoing",
                    "UPDATE undoing SET reason = 'y'",
                    "DELETE FROM undoing_choice",
                    "UPDATE undoing_choice SET amount_minor = 1",
                    "INSERT INTO undoing_choice SELECT " + id
                            + ", (SELECT MIN(id) FROM undoing WHERE NOT by_two), p.id,"
                            + " p.posted_entry_id, (SELECT MIN(id) FROM invoice), 1, 1, 'USD', 5 FROM payment p"
                            + " WHERE p.posted_entry_id IS NOT NULL LIMIT 1")) {
                assertThatThrownBy(() -> application.createStatement().execute(sql))
                        .as(sql)
                        .isInstanceOf(SQLException.class);
            }
        }
    }
}
