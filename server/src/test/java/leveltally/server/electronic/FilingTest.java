package leveltally.server.electronic;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.invoice;
import static leveltally.server.App.jdbc;
import static leveltally.server.App.number;
import static leveltally.server.App.ruth;
import static leveltally.server.App.tomas;
import static leveltally.server.electronic.Electronic.account;
import static leveltally.server.electronic.Electronic.ach;
import static leveltally.server.electronic.Electronic.approved;
import static leveltally.server.electronic.Electronic.file;
import static leveltally.server.electronic.Electronic.limited;
import static leveltally.server.electronic.Electronic.transfers;
import static leveltally.server.electronic.Electronic.vendor;
import static leveltally.server.electronic.Electronic.wanted;
import static leveltally.server.electronic.Electronic.way;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.PaymentFileReader;
import leveltally.core.electronic.SaidPayment;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.proof.LevelStrip;
import leveltally.core.proof.LevelStrip.Step;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.App;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankAnswers.RefusedItem;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.batches.Batches;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.posting.Posting;
import leveltally.server.printing.TakingOut;
import leveltally.server.proof.Levels;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.VendorChanges;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.dao.DataAccessException;

/** Payments by file, from an approved batch to the ledger, and what the database refuses of them. */
class FilingTest {
    @AfterAll
    static void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static List<SaidPayment> said(PaymentMethod method, long file) {
        List<SaidPayment> said = new ArrayList<>();
        try (var content = bean(BankFiles.class).open(file)) {
            PaymentFileReader.read(method, content, said::add);
        } catch (IOException broken) {
            throw new IllegalStateException(broken);
        }
        return said;
    }

    private static BatchState state(BatchId batch) {
        return bean(Batches.class).get(batch).state();
    }

    private static BatchId two(WayId way) {
        return approved(
                way,
                invoice(vendor(PaymentMethod.ACH, account()), "1225.00"),
                invoice(vendor(PaymentMethod.ACH, account()), "80.10"));
    }

    @Test
    void waysOfOneCustomerOfTheBankShareTheLettersOfItsDay() throws IOException {
        AchAgreement one = ach(EntryClass.CCD);
        BatchId first = two(way(wanted(one)));
        BatchId second = two(way(wanted(one)));
        assertThat(letter(bean(Filing.class).file(ines(), first).files().get(0)))
                .isEqualTo('A');
        assertThat(letter(bean(Filing.class).file(ines(), second).files().get(0)))
                .isEqualTo('B');
        // another customer begins its own day
        BatchId other = two(way(wanted(ach(EntryClass.CCD))));
        assertThat(letter(bean(Filing.class).file(ines(), other).files().get(0)))
                .isEqualTo('A');
    }

    /** The file id modifier, at its place in the file header. */
    private static char letter(long file) throws IOException {
        try (var content = bean(BankFiles.class).open(file)) {
            return (char) content.readNBytes(34)[33];
        }
    }

    @ParameterizedTest
    @CsvSource({"CCD", "PPD", "CTX"})
    void anAchBatchIsFiledTakenAndPosted(EntryClass entryClass) {
        BankDetails bank = account();
        String vendor = vendor(PaymentMethod.ACH, bank);
        WayId way = way(wanted(ach(entryClass)));
        BatchId batch = approved(way, invoice(vendor, "1225.00"), invoice(vendor, "80.10"));
        Filing.Filed filed = bean(Filing.class).file(ines(), batch);
        assertThat(filed.behind()).isEmpty();
        assertThat(state(batch)).isEqualTo(BatchState.FILED);
        long file = filed.files().get(0);
        assertThat(said(PaymentMethod.ACH, file)).singleElement().satisfies(one -> {
            assertThat(one.minor()).isEqualTo(130_510);
            assertThat(one.account()).isEqualTo(bank.account());
            assertThat(one.payee()).isEqualTo(vendor.substring(0, Math.min(16, vendor.length())));
        });
        assertThatThrownBy(() -> bean(Posting.class).post(ines(), batch)).hasMessageContaining("took no file");
        bean(BankAnswers.class).accepted(ines(), file, "taken");
        assertThat(bean(Posting.class).post(ines(), batch).postedNow()).isEqualTo(1);
        assertThat(bean(Posting.class).post(ines(), batch).postedNow()).isZero();
        assertThat(state(batch)).isEqualTo(BatchState.POSTED);
        LevelStrip level = bean(Levels.class).of(batch);
        assertThat(level.isLevel()).isTrue();
        assertThat(level.tallies())
                .extracting(LevelStrip.Tally::step)
                .containsExactly(Step.LINES, Step.PAYMENTS, Step.IN_FILE, Step.LEDGER);
        assertThat(level.tallies())
                .allSatisfy(tally -> assertThat(tally.amount().minor()).isEqualTo(130_510));
    }

    @Test
    void transfersAreFiledUnderTheirOwnReferences() {
        WayId way = way(wanted(transfers()));
        BatchId batch = approved(
                way,
                invoice(vendor(PaymentMethod.CREDIT_TRANSFER, account()), "12.00"),
                invoice(vendor(PaymentMethod.CREDIT_TRANSFER, account()), "13.00"));
        long file = bean(Filing.class).file(ines(), batch).files().get(0);
        List<String> called = jdbc().sql(
                        "SELECT i.called FROM electronic_item i JOIN payment p ON p.id = i.payment_id WHERE p.batch_id = ? ORDER BY i.reference")
                .param(batch.value())
                .query(String.class)
                .list();
        assertThat(said(PaymentMethod.CREDIT_TRANSFER, file))
                .extracting(SaidPayment::called)
                .containsExactlyElementsOf(called);
        assertThat(number("SELECT next_reference FROM electronic_way WHERE way_id = ?", way.value()))
                .isEqualTo(1002);
    }

    @Test
    void aRefusedFileIsFollowedByAnother() {
        BatchId batch = two(way(wanted(ach(EntryClass.CCD))));
        long first = bean(Filing.class).file(ines(), batch).files().get(0);
        assertThatThrownBy(() -> bean(Filing.class).file(ines(), batch))
                .hasMessageContaining("stands in a file already");
        bean(BankAnswers.class).refused(ines(), first, "the origin is not known");
        assertThatThrownBy(() -> bean(BankAnswers.class).accepted(tomas(), first, ""))
                .hasMessageContaining("recorded already");
        long second = bean(Filing.class).file(tomas(), batch).files().get(0);
        assertThat(number("SELECT follows_id FROM bank_file WHERE id = ?", second))
                .isEqualTo(first);
        assertThat(said(PaymentMethod.ACH, second)).isEqualTo(said(PaymentMethod.ACH, first));
        assertThat(number("SELECT day_number FROM bank_file WHERE id = ?", second))
                .isEqualTo(2);
        bean(BankAnswers.class).accepted(ines(), second, "");
        assertThat(bean(Posting.class).post(ines(), batch).waiting()).isZero();
    }

    @Test
    void whatTheBankRefusedSinglyWaitsOrIsTakenOut() {
        BatchId batch = two(way(wanted(ach(EntryClass.CCD))));
        long file = bean(Filing.class).file(ines(), batch).files().get(0);
        String called = said(PaymentMethod.ACH, file).get(0).called();
        assertThatThrownBy(() -> bean(BankAnswers.class)
                        .accepted(ines(), file, "", List.of(new RefusedItem("X1", "no such account"))))
                .hasMessageContaining("carries no payment X1");
        bean(BankAnswers.class).accepted(ines(), file, "", List.of(new RefusedItem(called, "the account is closed")));
        Posting.Outcome posted = bean(Posting.class).post(ines(), batch);
        assertThat(posted.postedNow()).isEqualTo(1);
        assertThat(posted.waiting()).isEqualTo(1);
        var claim = bean(FilingLook.class)
                .seen(
                        ines(),
                        bean(Batches.class).get(batch),
                        bean(ElectronicWays.class)
                                .get(
                                        App.operations(),
                                        bean(Batches.class).get(batch).way()))
                .ready()
                .get(0)
                .claim();
        bean(TakingOut.class).takeOut(ines(), batch, Set.of(claim.id()), false, "paid by check instead");
        assertThat(state(batch)).isEqualTo(BatchState.POSTED);
    }

    @Test
    void whatIsTooMuchIsSplitOrRefused() {
        WayId splitting = way(limited(ach(EntryClass.CCD), "", "1300.00", "", true));
        assertThat(bean(Filing.class).file(ines(), two(splitting)).files()).hasSize(2);
        BatchId whole = two(way(limited(ach(EntryClass.CCD), "", "1300.00", "", false)));
        assertThatThrownBy(() -> bean(Filing.class).file(ines(), whole)).hasMessageContaining("more than the 1,300.00");
        assertThat(state(whole)).isEqualTo(BatchState.APPROVED);
        assertThat(number("SELECT COUNT(*) FROM payment WHERE batch_id = ?", whole.value()))
                .isZero();
        Filing.Filed some =
                bean(Filing.class).file(ines(), two(way(limited(ach(EntryClass.CCD), "1000.00", "", "", false))));
        assertThat(some.behind().values()).singleElement().asString().contains("more than the bank takes this way");
        WayId daily = way(limited(ach(EntryClass.CCD), "", "", "1400.00", false));
        bean(Filing.class).file(ines(), two(daily));
        BatchId second = two(daily);
        assertThatThrownBy(() -> bean(Filing.class).file(ines(), second))
                .hasMessageContaining("come to 1,305.10 already");
    }

    @Test
    void whatTheBankHasNotAnsweredIsListedHoweverOldItIs() {
        BatchId old = two(way(wanted(ach(EntryClass.CCD))));
        long silent = bean(Filing.class).file(ines(), old).files().get(0);
        BatchId batch = two(way(wanted(ach(EntryClass.CCD))));
        long refused = bean(Filing.class).file(ines(), batch).files().get(0);
        bean(BankAnswers.class).refused(ines(), refused, "unreadable");
        long again = bean(Filing.class).file(ines(), batch).files().get(0);
        bean(BankAnswers.class).accepted(ines(), again, "");
        List<PaymentFileRows.ListedFile> newest = bean(PaymentFileRows.class).ofAccount(App.operations(), 2);
        assertThat(newest.get(0).file().id()).isEqualTo(again);
        assertThat(newest.get(0).file().follows())
                .isEqualTo(newest.get(1).file().serial());
        assertThat(newest.get(1).file().note()).isEqualTo("unreadable");
        assertThat(newest.get(0).batch()).isEqualTo(batch.value());
        assertThat(newest).filteredOn(one -> one.file().id() == silent).singleElement();
    }

    @Test
    void whatTheBankRefusedTakesNoneOfTheDay() {
        WayId way = way(limited(ach(EntryClass.CCD), "", "", "1700.00", false));
        long file = bean(Filing.class).file(ines(), two(way)).files().get(0);
        BatchId second = two(way);
        assertThatThrownBy(() -> bean(Filing.class).file(ines(), second)).hasMessageContaining("to 1,305.10 already");
        SaidPayment larger = said(PaymentMethod.ACH, file).stream()
                .max(Comparator.comparing(SaidPayment::minor))
                .orElseThrow();
        bean(BankAnswers.class)
                .accepted(ines(), file, "", List.of(new RefusedItem(larger.called(), "the account is closed")));
        assertThat(bean(Filing.class).file(ines(), second).files()).hasSize(1);
    }

    @Test
    void aChangedAccountStaysBehind() {
        String vendor = vendor(PaymentMethod.ACH, account());
        BatchId batch = approved(
                way(wanted(ach(EntryClass.CCD))),
                invoice(vendor, "10.00"),
                invoice(vendor(PaymentMethod.ACH, account()), "11.00"));
        BankDetails other = account();
        bean(VendorChanges.class)
                .propose(
                        tomas(),
                        App.vendor(vendor),
                        new VendorChanges.Wanted(
                                number(
                                        "SELECT id FROM remit_to WHERE vendor_id = ?",
                                        App.vendor(vendor).value()),
                                vendor,
                                List.of("1 File Lane"),
                                "41001",
                                false,
                                other,
                                "a letter"));
        Electronic.confirm(App.vendor(vendor), other);
        Filing.Filed filed = bean(Filing.class).file(ines(), batch);
        assertThat(filed.behind().values())
                .singleElement()
                .asString()
                .contains(vendor)
                .contains("changed after");
        assertThat(said(PaymentMethod.ACH, filed.files().get(0))).hasSize(1);
    }

    @Test
    void aHolidayNamesTheNearestDay() {
        WayId way = way(wanted(ach(EntryClass.CCD)));
        BatchId batch = two(way);
        var closed = java.util.Map.of(App.CHECK_DATE, "Closing day");
        bean(BankHolidays.class).add(Electronic.joss(), App.operations(), closed);
        try {
            assertThatThrownBy(() -> bean(Filing.class).file(ines(), batch))
                    .hasMessageContaining("Fri 13 Nov 2026 is no banking day. The nearest day is Mon 16 Nov 2026");
        } finally {
            bean(BankHolidays.class).remove(Electronic.joss(), App.operations(), App.CHECK_DATE);
        }
        bean(Filing.class).file(ines(), batch);
    }

    @Test
    void whatWasRefusedIsPaidOnTheNearestDay() {
        WayId way = way(wanted(ach(EntryClass.CCD)));
        BatchId batch = two(way);
        long first = bean(Filing.class).file(ines(), batch).files().get(0);
        bean(BankAnswers.class).refused(ines(), first, "too late");
        bean(BankHolidays.class)
                .add(Electronic.joss(), App.operations(), java.util.Map.of(App.CHECK_DATE, "Closing day"));
        try {
            long second = bean(Filing.class).file(ines(), batch).files().get(0);
            assertThat(jdbc().sql("SELECT pays_on FROM bank_file WHERE id = ?")
                            .param(second)
                            .query(LocalDate.class)
                            .single())
                    .isEqualTo("2026-11-16");
        } finally {
            bean(BankHolidays.class).remove(Electronic.joss(), App.operations(), App.CHECK_DATE);
        }
    }

    @Test
    void ofTwoClicksOneMakesTheFile() throws Exception {
        BatchId batch = two(way(wanted(ach(EntryClass.CCD))));
        ExecutorService both = Executors.newFixedThreadPool(2);
        Callable<String> click = () -> {
            try {
                return "made " + bean(Filing.class).file(ines(), batch).files().size();
            } catch (Refusal refused) {
                return refused.code();
            }
        };
        List<String> came = new ArrayList<>();
        for (Future<String> one : both.invokeAll(List.of(click, click))) {
            came.add(one.get());
        }
        both.shutdown();
        assertThat(came).containsExactlyInAnyOrder("made 1", "nothing-to-file");
    }

    @Test
    void ofTwoAnswersAtOnceOneCounts() throws Exception {
        for (int round = 0; round < 6; round++) {
            BatchId batch = two(way(wanted(ach(EntryClass.CCD))));
            bean(Filing.class).file(ines(), batch);
            long file = file(batch);
            ExecutorService both = Executors.newFixedThreadPool(2);
            Callable<String> took =
                    answer("took it", () -> bean(BankAnswers.class).accepted(ines(), file, "the bank telephoned"));
            Callable<String> refused =
                    answer("refused it", () -> bean(BankAnswers.class).refused(tomas(), file, "the bank wrote"));
            List<String> came = new ArrayList<>();
            for (Future<String> one :
                    both.invokeAll(round % 2 == 0 ? List.of(took, refused) : List.of(refused, took))) {
                came.add(one.get());
            }
            both.shutdown();
            boolean taken = came.contains("took it");
            assertThat(came).as("one of them is told so").contains(taken ? "took it" : "refused it");
            assertThat(came)
                    .doesNotContainSequence("took it", "refused it")
                    .doesNotContainSequence("refused it", "took it");
            assertThat(jdbc().sql("SELECT state FROM bank_file WHERE id = ?")
                            .param(file)
                            .query(String.class)
                            .single())
                    .isEqualTo(taken ? "ACCEPTED" : "REFUSED");
            assertThat(number(
                            "SELECT COUNT(*) FROM electronic_item i JOIN payment p ON p.id = i.payment_id WHERE p.batch_id = ? AND i.file_id IS NULL",
                            batch.value()))
                    .isEqualTo(taken ? 0 : 2);
        }
    }

    /** The bank refuses one singly while somebody posts it: it is in the ledger and in its file, or neither. */
    @Test
    void whatIsRefusedWhileItIsPostedIsOneOfBoth() throws Exception {
        WayId way = way(wanted(ach(EntryClass.CCD)));
        for (int round = 0; round < 12; round++) {
            BatchId batch = two(way);
            long file = bean(Filing.class).file(ines(), batch).files().get(0);
            bean(BankAnswers.class).accepted(ines(), file, "");
            RefusedItem late =
                    new RefusedItem(said(PaymentMethod.ACH, file).get(0).called(), "the account is closed");
            ExecutorService both = Executors.newFixedThreadPool(2);
            List<Future<String>> doing = both.invokeAll(List.of(
                    answer("posted", () -> bean(Posting.class).post(ines(), batch)),
                    answer("refused", () -> bean(BankAnswers.class).refusedAfterwards(tomas(), file, List.of(late)))));
            both.shutdown();
            assertThat(doing.get(0).get()).isEqualTo("posted");
            boolean refused = doing.get(1).get().equals("refused");
            assertThat(number(
                            "SELECT COUNT(*) FROM payment p JOIN electronic_item i ON i.payment_id = p.id WHERE p.batch_id = ?"
                                    + " AND (p.posted_entry_id IS NULL) <> (i.file_id IS NULL)",
                            batch.value()))
                    .isZero();
            assertThat(number(
                            "SELECT COUNT(*) FROM payment WHERE batch_id = ? AND posted_entry_id IS NOT NULL",
                            batch.value()))
                    .isEqualTo(refused ? 1 : 2);
        }
    }

    private static Callable<String> answer(String words, Runnable deed) {
        return () -> {
            try {
                deed.run();
                return words;
            } catch (Refusal otherwise) {
                return otherwise.code();
            }
        };
    }

    @Test
    void theDatabaseRefusesWhatWouldPayTwice() {
        WayId way = way(wanted(ach(EntryClass.CCD)));
        BatchId batch = two(way);
        long file = bean(Filing.class).file(ines(), batch).files().get(0);
        BatchId later = two(way);
        long other = bean(Filing.class).file(ines(), later).files().get(0);
        long payment = number("SELECT MIN(id) FROM payment WHERE batch_id = ?", batch.value());
        refused("has not refused", "UPDATE electronic_item SET file_id = " + other + " WHERE payment_id = " + payment);
        refused("has not refused", "UPDATE electronic_item SET file_id = NULL WHERE payment_id = " + payment);
        refused(
                "not in this file",
                "INSERT INTO bank_file_item (file_id, payment_id, position, amount_minor) VALUES (" + other + ", "
                        + payment + ", 99, 1)");
        refused(
                "another way",
                "INSERT INTO check_number (id, series_id, number, state, origin, payment_id, explanation, state_date, steps, version)"
                        + " VALUES (1, " + App.series() + ", 1, 'TAKEN', 'RUN', " + payment
                        + ", '', '2026-11-12', 1, 0)");
        refused(
                "no bank took",
                "UPDATE payment SET posted_entry_id = (SELECT MIN(id) FROM journal_entry) WHERE id = " + payment);
        refused("has not refused", "UPDATE payment SET state = 'TAKEN_OUT' WHERE id = " + payment);
        refused("never changes", "UPDATE electronic_item SET called = 'X' WHERE payment_id = " + payment);
        assertThat(file).isEqualTo(file(batch));
        assertThatThrownBy(() -> jdbc().sql("DELETE FROM electronic_item WHERE payment_id = ?")
                        .param(payment)
                        .update())
                .isInstanceOf(DataAccessException.class);
    }

    private static void refused(String why, String sql) {
        assertThatThrownBy(() -> App.asRoot(sql)).hasStackTraceContaining(why);
    }

    @Test
    void whatIsAlreadyKnownIsNotChangedUnseen() {
        WayId way = way(wanted(ach(EntryClass.CCD)));
        bean(Filing.class).file(ines(), two(way));
        assertThatThrownBy(() -> bean(ElectronicWays.class)
                        .set(Electronic.joss(), App.operations(), way, wanted(ach(EntryClass.CCD))))
                .hasMessageContaining("Somebody changed meanwhile");
        assertThatThrownBy(() -> bean(ElectronicWays.class).set(ruth(), App.operations(), way, wanted(transfers())))
                .isInstanceOf(Refusal.class);
        InvoiceId one = invoice(vendor(PaymentMethod.ACH, account()), "5.00");
        BatchId batch = approved(way, one);
        assertThat(bean(Filing.class).file(ines(), batch).files()).hasSize(1);
    }
}
