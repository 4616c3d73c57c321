package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import leveltally.core.Refusal;
import leveltally.server.ledger.LedgerFiles;
import org.junit.jupiter.api.Test;

/** Every entry is handed to the general ledger once: by a file that is taken, or again by another where it was taken back. */
class LedgerFilesTest {
    private static final LocalDate EVER = LocalDate.of(2099, 12, 31);

    private static long waiting() {
        return number("SELECT COUNT(*) FROM waiting_entry");
    }

    private static long entries(long file) {
        return number("SELECT COUNT(*) FROM ledger_file_entry WHERE file_id = ?", file);
    }

    @Test
    void everyEntryIsHandedOverOnce() {
        LedgerFiles files = bean(LedgerFiles.class);
        Http ines = Http.signedIn("ines");
        // what another test handed over waits again
        App.jdbc()
                .sql("SELECT id FROM ledger_file WHERE state = 'MADE'")
                .query(Long.class)
                .list()
                .forEach(made -> files.takeBack(ines(), made, "begun again"));
        App.invoice("Bollard Foundry", "12.34");
        long all = number("SELECT COUNT(*) FROM journal_entry");
        long before = number("SELECT COUNT(*) FROM ledger_file_entry x JOIN ledger_file f ON f.id = x.file_id"
                + " WHERE f.state <> 'TAKEN_BACK'");
        assertThat(waiting() + before).isEqualTo(all);
        long early = number("SELECT COUNT(*) FROM waiting_entry w JOIN journal_entry e ON e.id = w.entry_id"
                + " WHERE e.ledger_date <= '2026-10-31'");
        long october = files.make(ines(), LocalDate.of(2026, 10, 31));
        assertThat(entries(october)).isEqualTo(early).isPositive();
        long rest = files.make(ines(), EVER);
        assertThat(waiting()).isZero();
        assertThat(entries(october) + entries(rest) + before).isEqualTo(all);
        assertThatThrownBy(() -> files.make(ines(), EVER)).hasMessageContaining("No entry up to");
        // its lines balance, each of its entries is there once
        String csv = ines.get("/api/ledger-files/" + rest + "/csv", "text/csv").body();
        assertThat(csv).contains("file,entry,ledger_date,kind,text,account,account_name,debit,credit,currency");
        assertThat(csv).contains("12.34");
        assertThat(csv.lines()
                        .skip(1)
                        .map(line -> line.split(",")[1])
                        .distinct()
                        .count())
                .isEqualTo(entries(rest));
        // taken back, its entries wait again and go into the next
        assertThat(ines.post("/api/ledger-files/" + rest + "/take-back", "{\"reason\": \" \"}")
                        .body())
                .contains("Say why");
        assertThat(ines.post("/api/ledger-files/" + rest + "/take-back", "{\"reason\": \"its day is closed there\"}")
                        .status())
                .isEqualTo(200);
        assertThat(waiting()).isEqualTo(entries(rest));
        assertThat(ines.get("/api/ledger-files/" + rest + "/csv", "text/csv").status())
                .isEqualTo(409);
        long again = files.make(ines(), EVER);
        assertThat(entries(again)).isEqualTo(entries(rest));
        files.taken(ines(), again);
        assertThat(ines.get("/api/trail/of?subject=ledger%20file%20" + again).body())
                .contains("hand entries over", "answer for ledger file");
        assertThatThrownBy(() -> files.takeBack(ines(), again, "too late")).hasMessageContaining("that stands");
        assertThat(ines.get("/api/ledger-files").body()).contains("its day is closed there", "\"waiting\":0");
        // what is posted afterwards waits
        App.invoice("Bollard Foundry", "56.78");
        assertThat(waiting()).isOne();
    }

    @Test
    void twoWhoHandOverAtOnceDoNotShareAnEntry() {
        App.invoice("Bollard Foundry", "9.99");
        long all = waiting();
        List<CompletableFuture<Long>> both = IntStream.range(0, 4)
                .mapToObj(i -> CompletableFuture.supplyAsync(() -> {
                    try {
                        return bean(LedgerFiles.class).make(ines(), EVER);
                    } catch (Refusal none) {
                        return 0L;
                    }
                }))
                .toList();
        List<Long> made =
                both.stream().map(CompletableFuture::join).filter(id -> id > 0).toList();
        assertThat(made.stream().mapToLong(LedgerFilesTest::entries).sum()).isEqualTo(all);
        assertThat(waiting()).isZero();
    }

    @Test
    void theDatabaseKeepsWhatWasHandedOver() {
        if (waiting() > 0) {
            bean(LedgerFiles.class).make(ines(), EVER);
        }
        App.invoice("Bollard Foundry", "8.88");
        long file = bean(LedgerFiles.class).make(ines(), EVER);
        long entry = number("SELECT MIN(entry_id) FROM ledger_file_entry WHERE file_id = ?", file);
        for (String sql : List.of(
                "DELETE FROM ledger_file_entry WHERE entry_id = " + entry,
                "DELETE FROM waiting_entry",
                "INSERT INTO waiting_entry VALUES (" + entry + ")",
                "INSERT INTO ledger_file_entry VALUES (" + (file - 1) + ", " + entry + ")",
                "UPDATE ledger_file SET up_to = '2020-01-01' WHERE id = " + file)) {
            assertThatThrownBy(() -> App.jdbc().sql(sql).update()).as(sql).isNotNull();
        }
        bean(LedgerFiles.class).taken(ines(), file);
        assertThatThrownBy(() -> App.asRoot("UPDATE ledger_file SET state = 'TAKEN_BACK' WHERE id = " + file))
                .as("taken back once it was taken")
                .isNotNull();
    }
}
