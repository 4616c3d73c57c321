package leveltally.server.electronic;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.PaymentFileReader;
import leveltally.core.electronic.SaidPayment;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.App;
import leveltally.server.Killing;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.bankfiles.FilesByHand;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Whenever the connection breaks, every payment is in one file under one reference, none is missing, and each is posted once. */
class KilledFilingTest {
    private static final int ROUNDS = 12;
    private static final int FIRST_REFERENCE = 1000;
    private static final String OF_BATCH =
            " FROM electronic_item i JOIN payment p ON p.id = i.payment_id WHERE p.batch_id = ";
    private static final List<String> VENDORS = new ArrayList<>();
    private static WayId way;

    private final Killing filing = new Killing(new Random(41), 70);
    private final Killing handing = new Killing(new Random(42), 14);
    private final Killing hearing = new Killing(new Random(43), 20);
    private final Killing posting = new Killing(new Random(44), 70);

    @BeforeAll
    static void aWayOfItsOwn() {
        way = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        for (int i = 0; i < 4; i++) {
            VENDORS.add(Electronic.vendor(PaymentMethod.ACH, Electronic.account()));
        }
    }

    @Test
    void everyPaymentIsFiledHeardOfAndPostedOnce() throws Exception {
        int brokeFiling = 0;
        int brokeLater = 0;
        for (int round = 1; Killing.goesOn(round - 1, ROUNDS, brokeFiling, brokeLater); round++) {
            BatchId batch = Electronic.approved(
                    way, VENDORS.stream().map(one -> App.invoice(one, "41.25")).toArray(InvoiceId[]::new));
            filing.begin();
            filing.whole(
                    () -> bean(Filing.class).file(ines(), batch),
                    "SELECT COUNT(DISTINCT i.file_id)" + OF_BATCH + batch.value());
            brokeFiling += filing.broken();
            long file = Electronic.file(batch);
            isWhole(batch, file, round);

            begin(handing, hearing, posting);
            handing.whole(
                    () -> done(() -> bean(FilesByHand.class).handed(ines(), file)),
                    "SELECT COUNT(*) > 0 FROM" + " bank_file_handing WHERE file_id = " + file);
            hearing.whole(
                    () -> done(() -> bean(BankAnswers.class).accepted(ines(), file, "")),
                    "SELECT COUNT(*) FROM" + " bank_file WHERE state = 'ACCEPTED' AND id = " + file);
            posting.whole(
                    () -> bean(Posting.class).post(ines(), batch),
                    "SELECT COUNT(*) FROM batch WHERE state =" + " 'POSTED' AND id = " + batch.value());
            brokeLater += handing.broken() + hearing.broken() + posting.broken();
            assertThat(number(
                            "SELECT SUM(e.kind = 'PAYMENT') FROM journal_entry e WHERE e.id IN (SELECT posted_entry_id FROM"
                                    + " payment WHERE batch_id = ?)",
                            batch.value()))
                    .isEqualTo(VENDORS.size());
        }
        assertThat(brokeFiling).as("files that broke while they were made").isGreaterThan(2);
        assertThat(brokeLater).as("what broke afterwards").isGreaterThan(2);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static void begin(Killing... all) {
        Stream.of(all).forEach(Killing::begin);
    }

    private static boolean done(Runnable deed) {
        deed.run();
        return true;
    }

    /** Every payment in it under its own reference, in its bytes too, and no reference was lost on the way. */
    private static void isWhole(BatchId batch, long file, int round) throws IOException {
        assertThat(number("SELECT COUNT(*)" + OF_BATCH + batch.value() + " AND i.file_id = " + file))
                .isEqualTo(VENDORS.size());
        assertThat(number("SELECT next_reference FROM electronic_way WHERE way_id = ?", way.value()) - FIRST_REFERENCE)
                .as("references used")
                .isEqualTo((long) round * VENDORS.size());
        List<SaidPayment> said = new ArrayList<>();
        try (var content = bean(BankFiles.class).open(file)) {
            PaymentFileReader.read(PaymentMethod.ACH, content, said::add);
        }
        assertThat(said)
                .extracting(SaidPayment::called)
                .containsExactlyElementsOf(App.jdbc()
                        .sql("SELECT i.called" + OF_BATCH + batch.value() + " ORDER BY i.called")
                        .query(String.class)
                        .list());
    }
}
