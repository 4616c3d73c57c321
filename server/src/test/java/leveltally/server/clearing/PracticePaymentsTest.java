package leveltally.server.clearing;

import static leveltally.server.App.bean;
import static leveltally.server.App.number;
import static leveltally.server.clearing.TestBank.account;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.FileAgreement;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.vendors.PaymentMethod;
import leveltally.practicebank.Mischief;
import leveltally.server.App;
import leveltally.server.batches.Withdrawing;
import leveltally.server.electronic.Electronic;
import leveltally.server.electronic.Filing;
import leveltally.server.exchange.Courier;
import leveltally.server.exchange.Incoming;
import leveltally.server.exchange.Outgoing;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.posting.Posting;
import leveltally.server.practice.PracticeDays;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Payments by file at the bank to practise on: it takes them by itself, answers, pays, and sends some back days later. */
class PracticePaymentsTest {
    private final PracticeDays days = bean(PracticeDays.class);
    private final Incoming incoming = bean(Incoming.class);
    // one day after the other, also from test to test: the company's day only goes on
    private static LocalDate day;

    @BeforeAll
    static void firstDay() {
        day = bean(BankHolidays.class).of(account()).onOrAfter(TestBank.nextDay());
    }

    @AfterAll
    static void asItWas() {
        // its statements go on from what this bank told before, not from what other tests read since
        App.asRoot("DELETE FROM bank_incoming WHERE state = 'WAITING'");
        App.asRoot("DELETE FROM practice_day");
        App.asRoot("DELETE FROM bank_sending");
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private Actor clerk() {
        return TestBank.on(App.tomas(), day);
    }

    /** Lets a day pass there, and reads what came. */
    private List<Incoming.IncomingRead> aDay() {
        bean(Courier.class).carry(Instant.now());
        day = days.letPass(clerk()).today();
        return incoming.readAll(clerk(), account());
    }

    /** @param payments more than two where some must be left: of its own accord the bank sends some back, too */
    private BatchId sent(PaymentMethod method, FileAgreement agreement, int payments) {
        WayId way = Electronic.way(Electronic.wanted(agreement));
        BatchId batch = Electronic.approvedToday(
                way,
                IntStream.range(0, payments)
                        .mapToObj(i -> App.invoice(Electronic.vendor(method, Electronic.account()), (61 + i) + ".10"))
                        .toArray(InvoiceId[]::new));
        bean(Outgoing.class)
                .send(
                        clerk(),
                        bean(Filing.class).file(App.ines(), batch).files().get(0));
        return batch;
    }

    private static String file(BatchId batch) {
        return App.jdbc()
                .sql(
                        "SELECT MAX(f.state) FROM bank_file f JOIN bank_file_item x ON x.file_id = f.id JOIN payment p ON p.id = x.payment_id"
                                + " WHERE p.batch_id = ? AND f.id = (SELECT MAX(y.file_id) FROM bank_file_item y WHERE y.payment_id = p.id)")
                .param(batch.value())
                .query(String.class)
                .single();
    }

    private static long reversed(BatchId batch) {
        return number("SELECT COUNT(*) FROM payment WHERE batch_id = ? AND state = 'REVERSED'", batch.value());
    }

    @Test
    void anAchFileIsTakenAndSomeOfItComesBack() {
        BatchId batch = sent(PaymentMethod.ACH, Electronic.ach(EntryClass.CCD), 8);
        assertThat(aDay()).anyMatch(one -> one.name().startsWith("answer-ach-") && one.read());
        assertThat(file(batch)).isEqualTo("ACCEPTED");
        assertThat(bean(Posting.class).post(clerk(), batch).waiting()).isZero();
        long before = reversed(batch);
        days.order(clerk(), account(), Mischief.SEND_BACK, true);
        assertThat(aDay())
                .anyMatch(one -> one.name().startsWith("returns-") && one.said().contains("dealt with"));
        assertThat(reversed(batch)).isGreaterThan(before);
        days.order(clerk(), account(), Mischief.CORRECT_ACCOUNT, true);
        long proposed = number("SELECT COUNT(*) FROM vendor_change WHERE state = 'PROPOSED'");
        for (int i = 0;
                i < 2 && number("SELECT COUNT(*) FROM vendor_change WHERE state = 'PROPOSED'") == proposed;
                i++) {
            aDay();
        }
        assertThat(number("SELECT COUNT(*) FROM vendor_change WHERE state = 'PROPOSED'"))
                .isGreaterThan(proposed);
        App.asRoot(
                "UPDATE vendor_change SET state = 'TAKEN_BACK', decided_by = proposed_by, decided_at = NOW(), decided_on = proposed_on"
                        + " WHERE state = 'PROPOSED' AND why LIKE 'The bank says%'");
    }

    @Test
    void anAnnouncedAccountIsLookedForAndIsNotThere() {
        AchAgreement plain = Electronic.ach(EntryClass.CCD);
        WayId way = Electronic.way(Electronic.wanted(new AchAgreement(plain.sender(), false, EntryClass.CCD, 2)));
        BatchId batch = Electronic.approvedToday(
                way, App.invoice(Electronic.vendor(PaymentMethod.ACH, Electronic.account()), "15.10"));
        long file = bean(Filing.class).announce(App.ines(), batch);
        bean(Outgoing.class).send(clerk(), file);
        days.order(clerk(), account(), Mischief.SEND_BACK, true);
        String unknown = "SELECT COUNT(*) FROM announcement WHERE file_id = ? AND sent_back <> ''";
        for (int i = 0; i < 4 && number(unknown, file) == 0; i++) {
            aDay();
        }
        assertThat(number("SELECT COUNT(*) FROM bank_file WHERE id = ? AND state = 'ACCEPTED'", file))
                .isEqualTo(1);
        assertThat(number(unknown, file)).isEqualTo(1);
        bean(Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
    }

    @Test
    void aRefusedFileIsMadeAnewAndTransfersAreReportedOn() {
        days.order(clerk(), account(), Mischief.REFUSE_FILE, true);
        BatchId batch = sent(PaymentMethod.CREDIT_TRANSFER, Electronic.transfers(), 2);
        assertThat(aDay())
                .anyMatch(one -> one.name().startsWith("status-") && one.said().contains("refused file"));
        assertThat(file(batch)).isEqualTo("REFUSED");
        days.order(clerk(), account(), Mischief.REFUSE_EVENT, true);
        long again = bean(Filing.class)
                .file(TestBank.on(App.ines(), App.TODAY), batch)
                .files()
                .get(0);
        bean(Outgoing.class).send(clerk(), again);
        assertThat(aDay()).anyMatch(one -> one.said().contains("but not 1 payment"));
        assertThat(number(
                        "SELECT COUNT(*) FROM bank_file_item WHERE file_id = ? AND refused_why = 'the account is closed'",
                        again))
                .isEqualTo(1);
        assertThat(bean(Posting.class).post(clerk(), batch).postedNow()).isEqualTo(1);
        days.order(clerk(), account(), Mischief.SEND_BACK, true);
        assertThat(aDay())
                .anyMatch(one -> one.name().startsWith("status-") && one.said().contains("1 notice dealt with"));
        assertThat(reversed(batch)).isEqualTo(1);
    }
}
