package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import leveltally.core.clearing.Answer;
import leveltally.core.people.Actor;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.clearing.Answering;
import leveltally.server.clearing.BankReading;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.Test;

/** Whenever the connection breaks while a file of the bank is read, all of it is there once, or none; read again, it is there once. */
class KilledReadingTest {
    private static final LocalDate DAY = LocalDate.of(2027, 1, 29);
    private static final int UNKNOWN = 400;

    private final Killing killing = new Killing(new Random(17), 120);

    @Test
    void aFileOfTheBankIsReadWholeOrNotAtAll() throws Exception {
        for (int round = 0; Killing.goesOn(round, 14, killing.broken()); round++) {
            long check = posted((40 + round) + ".00");
            String name = "killed-" + round + ".csv";
            StringBuilder text = new StringBuilder("paid on,check,amount,reference\n");
            text.append(DAY + "," + check + "," + (40 + round) + ".00,\n");
            for (int i = 0; i < UNKNOWN; i++) {
                text.append(DAY + "," + (6_000_000 + round * 1_000 + i) + ",1.00,\n");
            }
            killing.whole(
                    () -> read(name, text.toString()),
                    "SELECT COUNT(*) FROM bank_report WHERE file_name = '" + name + "'");
            assertThat(number(
                            "SELECT COUNT(*) FROM bank_movement m JOIN bank_report r ON r.id = m.report_id WHERE r.file_name = ?",
                            name))
                    .isEqualTo(UNKNOWN + 1);
            assertThat(number(
                            "SELECT COUNT(*) FROM payment p JOIN check_number n ON n.live_payment_id = p.id WHERE n.number = ? AND"
                                    + " n.series_id = ? AND p.state = 'CLEARED'",
                            check,
                            App.series()))
                    .isOne();
        }
        answered();
        assertThat(killing.broken()).as("reads that broke in the middle").isGreaterThan(2);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    /** Nothing of it is left to be answered. */
    private static void answered() {
        var open = App.jdbc()
                .sql("SELECT m.id AS movement, m.version FROM bank_movement m JOIN bank_report r ON r.id = m.report_id"
                        + " WHERE r.file_name LIKE 'killed-%' AND m.is_open = 1")
                .query(Answering.SeenMovement.class)
                .list();
        Answering.Given all = new Answering.Given(
                App.operations(), open, Answer.BANKS_ERROR, "no checks of ours", null, null, "", "", List.of());
        assertThat(bean(Answering.class).answer(later(), all).answered()).isEqualTo(14 * UNKNOWN);
    }

    private static Actor later() {
        Actor who = App.tomas();
        return new Actor(who.person(), who.name(), who.roles(), DAY.plusDays(1), Instant.now(), "test");
    }

    private static long posted(String amount) {
        var batch = App.printed(App.invoice("Gannet Rope Walk", amount));
        bean(Posting.class).post(App.ines(), batch);
        return number(
                "SELECT n.number FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                batch.value());
    }

    private static Object read(String name, String text) {
        long layout = bean(KeptLayouts.class).toRead().stream()
                .filter(one -> one.name().contains("comma"))
                .findFirst()
                .orElseThrow()
                .id();
        return bean(BankReading.class)
                .read(
                        later(),
                        new BankReading.Sent(
                                App.operations(), name, text.getBytes(StandardCharsets.UTF_8), layout, ""));
    }
}
