package leveltally.server.exchange;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static leveltally.server.App.operations;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Random;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.invoices.InvoiceId;
import leveltally.server.App;
import leveltally.server.Killing;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Whenever the connection breaks while the bank is told, every check is in one file, whole, and the file is there once. */
class KilledTellingTest {
    private static final int ROUNDS = 14;
    private static final String TOLD = "SELECT COUNT(DISTINCT e.file_id) FROM bank_event e WHERE e.batch_id = ";

    private final Killing making = new Killing(new Random(31), 60);
    private final Killing sending = new Killing(new Random(32), 14);
    private final BankFiles files = bean(BankFiles.class);
    private final Courier courier = bean(Courier.class);

    @BeforeAll
    static void byFolder() throws IOException {
        Files.createDirectories(App.FOLDERS.resolve("in"));
        Files.createDirectories(App.FOLDERS.resolve("out"));
        Channelled.by(ChannelKind.FOLDER, 0, null, "");
    }

    @AfterAll
    static void asItWas() {
        App.asRoot("DELETE FROM bank_sending");
        Channelled.asItWas();
    }

    @Test
    void aFileIsMadeAndSentWholeOrNotAtAll() throws Exception {
        int brokeMaking = 0;
        long brokeSending = 0;
        for (int round = 0; Killing.goesOn(round, ROUNDS, brokeMaking, brokeSending); round++) {
            BatchId batch = posted();
            making.begin();
            making.whole(() -> files.make(ines(), operations()), TOLD + batch.value());
            brokeMaking += making.broken();
            long file = number("SELECT MAX(file_id) FROM bank_event WHERE batch_id = ?", batch.value());
            isWhole(file, batch);

            sending.begin();
            sending.whole(
                    () -> {
                        bean(Outgoing.class).send(ines(), file);
                        return file;
                    },
                    "SELECT COUNT(*) FROM bank_sending WHERE file_id = " + file);
            carried(file);
            // the courier says nothing of a line that broke, it tries again
            brokeSending += sending.broken() + number("SELECT tries > 1 FROM bank_sending WHERE file_id = ?", file);
            bean(BankAnswers.class).accepted(ines(), file, "");
        }
        assertThat(brokeMaking).as("files that broke while they were made").isGreaterThan(2);
        assertThat(brokeSending).as("files that broke on their way").isGreaterThan(2);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static BatchId posted() {
        BatchId batch =
                App.printed(Stream.of("Gannet Rope Walk", "Bollard Foundry", "Ironwrack Chain", "Pelorus Charts")
                        .map(vendor -> App.invoice(vendor, "31.25"))
                        .toArray(InvoiceId[]::new));
        bean(Posting.class).post(ines(), batch);
        return batch;
    }

    /** Every check in it once, and its bytes as long as it says. */
    private void isWhole(long file, BatchId batch) {
        assertThat(number(
                        "SELECT COUNT(*) FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id WHERE e.batch_id = ?"
                                + " AND x.file_id = ?",
                        batch.value(),
                        file))
                .isEqualTo(number("SELECT COUNT(*) FROM bank_event WHERE batch_id = ?", batch.value()));
        assertThat(Channelled.bytes(file)).hasSize((int) files.made(file).bytes());
        assertThat(number(
                        "SELECT MAX(serial) - MIN(serial) + 1 - COUNT(*) FROM bank_file WHERE bank_account_id = ? AND purpose ="
                                + " 'POSITIVE_PAY'",
                        operations().value()))
                .as("serial numbers missing")
                .isZero();
    }

    /** The courier is broken off; what it left it goes on with once its time is over. */
    private void carried(long file) throws Exception {
        String sent = "SELECT COUNT(*) FROM bank_sending WHERE state = 'SENT' AND file_id = " + file;
        Instant later = Instant.now().plus(Duration.ofDays(1));
        sending.whole(
                () -> {
                    for (int i = 0; i < 3; i++) {
                        courier.carry(later.plus(Duration.ofHours(12L * i)));
                        App.asRoot("UPDATE bank_sending SET taken_until = NULL WHERE file_id = " + file);
                    }
                    return file;
                },
                sent);
        Path folder = App.FOLDERS.resolve("in");
        assertThat(Files.readAllBytes(folder.resolve(files.made(file).name()))).isEqualTo(Channelled.bytes(file));
        try (Stream<Path> there = Files.list(folder)) {
            assertThat(there).noneMatch(one -> one.toString().endsWith(Courier.PART));
        }
    }
}
