package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.people.Actor;
import leveltally.core.proof.LevelStrip;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.bankfiles.Narrowed;
import leveltally.server.checks.BankEvents;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Levels;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Issue before void, each told once, whatever the bank answers. */
class BankEventsTest {
    private final BankFiles files = bean(BankFiles.class);
    private final BankAnswers answers = bean(BankAnswers.class);

    @BeforeEach
    void nothingWaits() {
        App.jdbc()
                .sql("SELECT id FROM bank_file WHERE state = 'MADE'")
                .query(Long.class)
                .list()
                .forEach(file -> answers.accepted(ines(), file, ""));
        if (waiting() > 0) {
            answers.accepted(ines(), files.make(ines(), App.operations()), "");
        }
    }

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private static long waiting() {
        return App.number("SELECT COUNT(*) FROM bank_event WHERE file_id IS NULL AND never_reported IS NULL");
    }

    private static long posted(String amount) {
        BatchId batch = App.printed(App.invoice("Bollard Foundry", amount));
        bean(Posting.class).post(ines(), batch);
        return App.number(
                "SELECT n.id FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                batch.value());
    }

    private static void voidIt(long check) {
        Actor later = new Actor(ines().person(), "ines", ines().roles(), App.CHECK_DATE, Instant.now(), "test");
        App.voidCheck(later, new CheckNumberId(check), App.CHECK_DATE, "lost");
    }

    private static List<String> kinds(long file) {
        return App.jdbc()
                .sql("SELECT e.kind FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id"
                        + " WHERE x.file_id = ? ORDER BY x.position")
                .param(file)
                .query(String.class)
                .list();
    }

    @Test
    void issueAndVoidThatBothWaitGoTogetherInThatOrder() {
        voidIt(posted("51.00"));
        long file = files.make(ines(), App.operations());
        assertThat(kinds(file)).containsExactly("ISSUE", "VOID");
        assertThat(waiting()).isZero();
        assertThatThrownBy(() -> files.make(ines(), App.operations())).hasMessageContaining("nothing to tell");
    }

    @Test
    void aVoidWaitsUntilTheBankTookTheIssue() {
        long check = posted("52.00");
        assertThat(aVoidWouldTell(check)).contains("has not heard of the check");
        long first = files.make(ines(), App.operations());
        // a file that was made is not one the bank has read
        assertThat(aVoidWouldTell(check)).contains("which the bank has not answered");
        voidIt(check);
        assertThatThrownBy(() -> files.make(ines(), App.operations())).hasMessageContaining("nothing to tell");
        assertThat(waiting()).isOne();
        answers.accepted(ines(), first, "");
        assertThat(aVoidWouldTell(check)).contains("The bank knows the check, it accepted file");
        assertThat(kinds(files.make(ines(), App.operations()))).containsExactly("VOID");
    }

    private static String aVoidWouldTell(long check) {
        return bean(BankEvents.class)
                .bankKnows(List.of(new CheckNumberId(check)))
                .get(new CheckNumberId(check))
                .ofAVoid();
    }

    @Test
    void afterARefusalBothGoIntoTheNextFile() {
        long check = posted("53.00");
        long first = files.make(ines(), App.operations());
        voidIt(check);
        assertThatThrownBy(() -> answers.refused(ines(), first, " "))
                .hasMessageContaining("Say what the bank found wrong");
        answers.refused(ines(), first, "unreadable");
        assertThat(aVoidWouldTell(check)).contains("has not heard of the check");
        long second = files.make(ines(), App.operations());
        assertThat(kinds(second)).containsExactly("ISSUE", "VOID");
        assertThat(kinds(first)).containsExactly("ISSUE");
    }

    private static String number(long check) {
        return String.valueOf(App.number("SELECT number FROM check_number WHERE id = ?", check));
    }

    @Test
    void singleEventsTheBankRefusedWaitAgainTheIssueWithItsVoid() {
        long good = posted("54.00");
        long wrong = posted("55.00");
        voidIt(wrong);
        long first = files.make(ines(), App.operations());
        assertThatThrownBy(() ->
                        answers.accepted(ines(), first, "", List.of(new BankAnswers.RefusedItem("1", "no such check"))))
                .hasMessageContaining("tells of no check 1");
        assertThatThrownBy(() ->
                        answers.accepted(ines(), first, "", List.of(new BankAnswers.RefusedItem(number(good), " "))))
                .hasMessageContaining("Say what the bank found wrong");
        answers.accepted(ines(), first, "", List.of(new BankAnswers.RefusedItem(number(wrong), "payee missing")));

        assertThat(waiting()).isEqualTo(2);
        long second = files.make(ines(), App.operations());
        assertThat(kinds(second)).containsExactly("ISSUE", "VOID");
        assertThat(kinds(first)).hasSize(3);
        assertThat(App.number(
                        "SELECT COUNT(*) FROM bank_file_item WHERE file_id = ? AND refused_why = 'payee missing'",
                        first))
                .isEqualTo(2);
    }

    @Test
    void aRangeOnlyNarrowsAndSaysWhatStays() {
        posted("56.00");
        Narrowed earlier = new Narrowed(App.series(), App.CHECK_DATE.minusDays(1));
        assertThatThrownBy(() -> files.make(ines(), App.operations(), earlier))
                .hasMessageContaining("Nothing that waits is in this range; 1 stay.");
        assertThat(waiting()).isOne();
        long file = files.make(ines(), App.operations(), new Narrowed(App.series(), App.CHECK_DATE));
        assertThat(kinds(file)).containsExactly("ISSUE");
        assertThat(App.jdbc()
                        .sql("SELECT narrowed FROM bank_file WHERE id = ?")
                        .param(file)
                        .query(String.class)
                        .single())
                .isEqualTo("of Checks, dated until Fri 13 Nov 2026");
    }

    @Test
    void theBankIsToldAnewOfWhatIsOutAndNothingCountsTwice() {
        long check = posted("57.00");
        answers.accepted(ines(), files.make(ines(), App.operations()), "");
        BatchId batch = new BatchId(App.number(
                "SELECT p.batch_id FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE n.id = ?",
                check));
        var before = bean(Levels.class).of(batch);
        assertThatThrownBy(() -> files.tellAnew(ines(), App.operations(), " ")).hasMessageContaining("Say what");

        long anew = files.tellAnew(ines(), App.operations(), "the bank lost its list");

        assertThat(kinds(anew)).isNotEmpty().containsOnly("ISSUE");
        assertThat(App.number(
                        "SELECT COUNT(*) FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id WHERE x.file_id = ?"
                                + " AND e.check_number_id = ?",
                        anew,
                        check))
                .isOne();
        assertThat(waiting()).isZero();
        assertThat(bean(Levels.class).of(batch)).isEqualTo(before);
        answers.refused(ines(), anew, "not wanted any more");
        assertThat(waiting()).isZero();
    }

    @Test
    void anAccountWithoutPositivePayWritesNoEvents() {
        long works = App.number("SELECT id FROM bank_account WHERE name = 'Harbour Works'");
        assertThat(App.number("SELECT COUNT(*) FROM bank_event WHERE bank_account_id = ?", works))
                .isZero();
        assertThatThrownBy(() -> files.make(ines(), new leveltally.core.ledger.BankAccountId(works)))
                .hasMessageContaining("not set up for positive pay");
    }

    @Test
    void accountNumbersAreSealedAtRestAndMaskedInThePreview() {
        assertThat(App.jdbc()
                        .sql("SELECT account_number_sealed FROM bank_account WHERE name = 'Operations'")
                        .query(String.class)
                        .single())
                .doesNotContain("004417720931");
        posted("54.00");
        String preview = Http.signedIn("priya")
                .get("/api/bank-files/preview?account=" + App.operations().value())
                .body();
        assertThat(preview).doesNotContain("004417720931").contains("••••0931");
    }

    /** What the bank need not hear is closed for a reason; the void of a check it knows never is. */
    @Test
    void whatIsNeverReportedIsClosedForAReason() {
        var closing = bean(BankEvents.class);
        var batch = App.printed(App.invoice("Gannet Rope Walk", "19.19"));
        bean(Posting.class).post(ines(), batch);
        long issue = App.number("SELECT id FROM bank_event WHERE batch_id = ? AND kind = 'ISSUE'", batch.value());
        assertThatThrownBy(() -> closing.neverReport(ines(), App.operations(), List.of(issue), " "))
                .hasMessageContaining("Say why");
        assertThatThrownBy(
                        () -> closing.neverReport(App.maren(), App.operations(), List.of(issue), "told by telephone"))
                .isInstanceOf(Refusal.class);
        closing.neverReport(ines(), App.operations(), List.of(issue), "told by telephone");
        assertThatThrownBy(() -> closing.neverReport(ines(), App.operations(), List.of(issue), "again"))
                .hasMessageContaining("does not wait any more");

        var told = App.printed(App.invoice("Gannet Rope Walk", "19.20"));
        bean(Posting.class).post(ines(), told);
        long file = files.make(ines(), App.operations());
        assertThat(App.number("SELECT COUNT(*) FROM bank_file_item WHERE file_id = ? AND event_id = ?", file, issue))
                .isZero();
        answers.accepted(ines(), file, "");
        CheckNumberId check = new CheckNumberId(App.number(
                "SELECT n.id FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                told.value()));
        Actor then =
                new Actor(ines().person(), "ines", ines().roles(), App.CHECK_DATE.plusDays(1), Instant.now(), "test");
        App.voidCheck(then, check, App.CHECK_DATE.plusDays(1), "lost");
        long voided = App.number("SELECT id FROM bank_event WHERE batch_id = ? AND kind = 'VOID'", told.value());
        assertThatThrownBy(() -> closing.neverReport(ines(), App.operations(), List.of(voided), "not needed"))
                .hasMessageContaining("or it pays it");
        answers.accepted(ines(), files.make(ines(), App.operations()), "");
    }

    /** Told the bank counts what the bytes of its file say, not what was written down about it. */
    @Test
    void theLevelReadsTheBytes() {
        var batch = App.printed(App.invoice("Gannet Rope Walk", "55.10"), App.invoice("Dunlin Raft & Davit", "44.20"));
        bean(Posting.class).post(ines(), batch);
        long file = files.make(ines(), App.operations());
        var levels = bean(Levels.class);
        assertThat(told(levels, batch)).isEqualTo(2);
        App.asRoot("UPDATE bank_file_part SET content = REPLACE(content, '00000005510', '00000095510') WHERE file_id = "
                + file);
        try {
            assertThat(told(levels, batch)).isEqualTo(1);
            assertThat(levels.of(batch).isLevel()).isFalse();
        } finally {
            App.asRoot(
                    "UPDATE bank_file_part SET content = REPLACE(content, '00000095510', '00000005510') WHERE file_id = "
                            + file);
        }
        assertThat(told(levels, batch)).isEqualTo(2);
        answers.accepted(ines(), file, "");
    }

    private static int told(Levels levels, BatchId batch) {
        return levels.of(batch).tallies().stream()
                .filter(one -> one.step() == LevelStrip.Step.TOLD_THE_BANK)
                .findFirst()
                .orElseThrow()
                .count();
    }
}
