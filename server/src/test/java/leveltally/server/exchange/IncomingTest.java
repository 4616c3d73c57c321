package leveltally.server.exchange;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.operations;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.exchange.ChannelKind;
import leveltally.server.App;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.posting.Posting;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What the bank lays for us: fetched once, read as what its name says, and never lost when it cannot be read. */
class IncomingTest {
    private final Courier courier = bean(Courier.class);
    private final Incoming incoming = bean(Incoming.class);
    private static int serial;

    @BeforeEach
    void byFolder() throws IOException {
        Files.createDirectories(App.FOLDERS.resolve("in"));
        Files.createDirectories(App.FOLDERS.resolve("out"));
        Channelled.by(ChannelKind.FOLDER, 0, null, "");
    }

    @AfterAll
    static void asItWas() {
        App.asRoot("DELETE FROM bank_incoming");
        App.asRoot("DELETE FROM bank_sending");
        Channelled.asItWas();
    }

    private static Path lay(String name, String text) throws IOException {
        return Files.writeString(App.FOLDERS.resolve("out").resolve(name), text);
    }

    private int look() {
        return courier.look(operations(), Instant.now());
    }

    private Incoming.IncomingView view(String name) {
        return incoming.of(ines(), operations(), null).stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private long made() {
        var batch = App.printed(App.invoice("Gannet Rope Walk", "77.1" + serial++ % 10));
        bean(Posting.class).post(ines(), batch);
        return bean(BankFiles.class).make(ines(), operations());
    }

    private static String stateOf(long file) {
        return App.jdbc()
                .sql("SELECT state FROM bank_file WHERE id = ?")
                .param(file)
                .query(String.class)
                .single();
    }

    @Test
    void anAnswerAnswersItsFile() throws IOException {
        long file = made();
        String name = bean(BankFiles.class).made(file).name();
        lay("answer-" + file + ".txt", "ANSWER;" + name + ";TAKEN;\r\n");
        assertThat(look()).isEqualTo(1);
        assertThat(look()).isZero();
        assertThat(stateOf(file)).isEqualTo("MADE");

        assertThat(incoming.readAll(ines(), operations())).singleElement().satisfies(one -> {
            assertThat(one.read()).isTrue();
            assertThat(one.said()).startsWith("The bank took file ");
        });
        assertThat(stateOf(file)).isEqualTo("ACCEPTED");
        assertThat(view("answer-" + file + ".txt").doneBy()).isEqualTo("Ines Okafor");

        // told again in other words it is passed over, and says why
        lay("answer-again-" + file + ".txt", "ANSWER;" + name + ";TAKEN;welcome\r\n");
        look();
        incoming.readAll(ines(), operations());
        assertThat(view("answer-again-" + file + ".txt").state()).isEqualTo("SET_ASIDE");
        assertThat(view("answer-again-" + file + ".txt").said()).contains("is recorded already");

        // told otherwise it waits: somebody has to know
        lay("answer-no-more-" + file + ".txt", "ANSWER;" + name + ";REFUSED;on second thoughts\r\n");
        look();
        incoming.readAll(ines(), operations());
        assertThat(view("answer-no-more-" + file + ".txt").state()).isEqualTo("WAITING");
        assertThat(view("answer-no-more-" + file + ".txt").said()).contains("somebody recorded otherwise");
        assertThat(stateOf(file)).isEqualTo("ACCEPTED");
        incoming.setAside(ines(), view("answer-no-more-" + file + ".txt").id(), "asked the bank");
    }

    @Test
    void ofARefusedFileEverythingWaitsAgain() throws IOException {
        long file = made();
        String name = bean(BankFiles.class).made(file).name();
        lay("answer-no-" + file + ".txt", "ANSWER;" + name + ";REFUSED;cut off\r\n");
        look();
        incoming.readAll(ines(), operations());

        assertThat(stateOf(file)).isEqualTo("REFUSED");
        assertThat(App.number("SELECT COUNT(*) FROM bank_event WHERE file_id = ?", file))
                .isZero();
        bean(BankAnswers.class).accepted(ines(), bean(BankFiles.class).make(ines(), operations()), "");
    }

    @Test
    void whatCannotBeReadWaitsAndSaysWhy() throws IOException {
        lay("answer-x.txt", "ANSWER;never-sent.txt;TAKEN;\r\n");
        lay("newsletter.pdf", "%PDF");
        lay("paid-broken.csv", "paid on,check,amount,reference\r\nyesterday,1,2.00,\r\n");
        look();
        assertThat(incoming.readAll(ines(), operations())).hasSize(3).noneMatch(Incoming.IncomingRead::read);

        assertThat(view("answer-x.txt").said()).contains("never given from here");
        assertThat(view("newsletter.pdf").said()).contains("Nobody said what files called newsletter.pdf are");
        assertThat(view("newsletter.pdf").is()).isEmpty();
        assertThat(view("paid-broken.csv").said()).contains("Line 2, field paid on");
        assertThat(view("paid-broken.csv").state()).isEqualTo("WAITING");

        long id = view("newsletter.pdf").id();
        assertThatThrownBy(() -> incoming.setAside(ines(), id, " ")).isInstanceOf(Refusal.class);
        incoming.setAside(ines(), id, "no file for us");
        assertThatThrownBy(() -> incoming.read(ines(), id, "")).hasMessageContaining("does not wait");
        incoming.takeBack(ines(), id);
        assertThat(view("newsletter.pdf").state()).isEqualTo("WAITING");
        assertThat(incoming.content(ines(), id).bytes()).asString().isEqualTo("%PDF");
        for (String name : List.of("newsletter.pdf", "answer-x.txt", "paid-broken.csv")) {
            incoming.setAside(ines(), view(name).id(), "tried");
        }
        assertThatThrownBy(() -> incoming.readAll(App.maren(), operations())).isInstanceOf(Refusal.class);
    }

    /** A statement that does not follow is read for a reason only. */
    @Test
    void whatDoesNotFollowIsReadForAReason() throws IOException {
        String number = bean(leveltally.server.ledger.BankAccounts.class)
                .get(operations())
                .accountNumber();
        String day = App.jdbc()
                .sql("SELECT MAX(to_day) FROM bank_report WHERE bank_account_id = ?")
                .param(operations().value())
                .query(java.time.LocalDate.class)
                .optional()
                .filter(last -> last.isAfter(App.TODAY))
                .orElse(App.TODAY)
                .toString();
        lay("statement-gap.csv", "STATEMENT;" + number + ";9000;" + day + ";" + day + ";5.00;5.00\r\n");
        look();
        var later = new leveltally.core.people.Actor(
                ines().person(), "ines", ines().roles(), App.TODAY.plusYears(1), Instant.now(), "test");
        assertThat(incoming.readAll(later, operations())).singleElement().satisfies(one -> {
            assertThat(one.read()).isFalse();
            assertThat(one.said()).contains("does not follow");
        });
        assertThat(view("statement-gap.csv").gap()).isTrue();
        incoming.setAside(later, view("statement-gap.csv").id(), "of the wrong year");
        assertThat(view("statement-gap.csv").gap()).isFalse();
    }

    @Test
    void aFileThatIsStillWrittenIsLeftAndOneLaidAnewTakesItsPlace() throws IOException {
        lay(".hidden", "x");
        lay("paid-1.csv.part", "x");
        assertThat(look()).isZero();
        Path first = lay("paid-twice.csv", "paid on,check,amount,ref");
        Files.setLastModifiedTime(first, FileTime.from(Instant.now().minusSeconds(60)));
        assertThat(look()).isEqualTo(1);
        lay("paid-twice.csv", "paid on,check,amount,reference\r\nmore");
        assertThat(look()).isEqualTo(1);

        List<Incoming.IncomingView> both = incoming.of(ines(), operations(), null).stream()
                .filter(one -> one.name().equals("paid-twice.csv"))
                .toList();
        assertThat(both).extracting(Incoming.IncomingView::state).containsExactly("WAITING", "SET_ASIDE");
        incoming.setAside(ines(), both.get(0).id(), "tried");
    }

    @Test
    void manyWhoLookAndReadAtOnceReadItOnce() throws Exception {
        long file = made();
        String name = bean(BankFiles.class).made(file).name();
        lay("answer-many-" + file + ".txt", "ANSWER;" + name + ";TAKEN;\r\n");
        var pool = Executors.newFixedThreadPool(6);
        List<Future<Integer>> rounds = Stream.generate(() -> pool.submit(() -> {
                    look();
                    return (int) incoming.readAll(ines(), operations()).stream()
                            .filter(Incoming.IncomingRead::read)
                            .count();
                }))
                .limit(6)
                .toList();
        int read = 0;
        for (Future<Integer> round : rounds) {
            read += round.get();
        }
        pool.shutdown();
        assertThat(read).isEqualTo(1);
        assertThat(stateOf(file)).isEqualTo("ACCEPTED");
    }

    @Test
    void aFolderThatIsGoneIsSaid() throws IOException {
        Files.move(App.FOLDERS.resolve("out"), App.FOLDERS.resolve("gone"));
        assertThat(look()).isZero();
        assertThat(bean(Exchange.class).of(ines(), operations()).trouble())
                .startsWith("The bank's folder could not be read");
        Files.move(App.FOLDERS.resolve("gone"), App.FOLDERS.resolve("out"));
        look();
        assertThat(bean(Exchange.class).of(ines(), operations()).trouble()).isEmpty();
    }

    @Test
    void aNameTooLongToKeepIsSaidAndHoldsUpNoOther() throws IOException {
        String first = "paid-" + "long".repeat(40) + ".csv";
        Path one = lay(first, "x");
        lay("paid-short.csv", "paid on,check,amount,reference\r\n");
        assertThat(look()).isEqualTo(1);
        assertThat(bean(Exchange.class).of(ines(), operations()).trouble())
                .isEqualTo(first.substring(0, 40)
                        + "… could not be fetched: its name has 169 characters; ask the bank for at most 120.");
        Path other = lay("statement-" + "x".repeat(120), "x");
        look();
        assertThat(bean(Exchange.class).of(ines(), operations()).trouble())
                .startsWith("2 files could not be fetched; the first: ");
        Files.delete(one);
        Files.delete(other);
        look();
        assertThat(bean(Exchange.class).of(ines(), operations()).trouble()).isEmpty();
        incoming.setAside(ines(), view("paid-short.csv").id(), "empty");
    }

    /** What was decided before the bank heard it by file, people told it; it is not told years later. */
    @Test
    void whatWasDecidedBeforeIsNotTold() {
        long account = operations().value();
        long movement = App.number(
                "SELECT MIN(m.id) FROM bank_movement m LEFT JOIN bank_decision d ON d.movement_id = m.id"
                        + " WHERE m.bank_account_id = ? AND m.is_open IS NULL AND d.movement_id IS NULL",
                account);
        Exchange exchange = bean(Exchange.class);
        int before = exchange.of(ines(), operations()).untold();
        App.asRoot("INSERT INTO bank_decision (movement_id, pays, decided_at, decided_by) SELECT " + movement
                + ", FALSE, '2026-01-01', MIN(id) FROM person");
        try {
            assertThat(exchange.of(ines(), operations()).untold()).isEqualTo(before);
            App.asRoot("UPDATE bank_decision SET decided_at = NOW(6) + INTERVAL 1 DAY WHERE movement_id = " + movement);
            assertThat(exchange.of(ines(), operations()).untold()).isEqualTo(before + 1);
        } finally {
            App.asRoot("DELETE FROM bank_decision WHERE movement_id = " + movement);
        }
    }
}
