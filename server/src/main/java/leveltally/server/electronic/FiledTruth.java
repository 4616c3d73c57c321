package leveltally.server.electronic;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.FileState;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.PaymentFileReader;
import leveltally.core.electronic.SaidPayment;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.frame.Seal;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Whether the files that pay still say what is paid (laws L4 and L12): their bytes, payment by payment. */
@Service
public class FiledTruth {
    private static final int MOST_FINDINGS = 20;
    private final JdbcClient jdbc;
    private final BankFiles files;
    private final Seal seal;

    FiledTruth(JdbcClient jdbc, BankFiles files, Seal seal) {
        this.jdbc = jdbc;
        this.files = files;
        this.seal = seal;
    }

    private record Carried(long file, long serial, PaymentMethod method) {}

    /** What a payment is, beside what its file says. */
    private record Is(long payment, long minor, @Nullable String account, String payee) {}

    /** Payments of a batch that stand in a file the bank may go by, but not in its bytes with the amount they have. */
    @Transactional(readOnly = true)
    public Set<Long> unsaid(BatchId batch) {
        Set<Long> unsaid = new HashSet<>();
        for (Carried file : carried(batch)) {
            Map<String, Is> payments = payments(file.file(), false);
            read(file, said -> {
                Is is = payments.get(said.called());
                if (is != null && is.minor() == said.minor()) {
                    payments.remove(said.called());
                }
            });
            payments.values().forEach(is -> unsaid.add(is.payment()));
        }
        return unsaid;
    }

    /**
     * Reads every file that pays and that the bank may go by against the payments as they are.
     *
     * @return a sentence for each payment of which something else is said, at most twenty for a file
     */
    @Transactional(readOnly = true)
    public List<String> untrue() {
        List<String> findings = new ArrayList<>();
        for (Carried file : carried(null)) {
            findings.addAll(untrue(file));
        }
        return findings;
    }

    private List<String> untrue(Carried file) {
        List<String> findings = new ArrayList<>();
        Map<String, Is> payments = payments(file.file(), true);
        read(file, said -> {
            Is is = payments.remove(said.called());
            if (is == null) {
                findings.add("File " + file.serial() + " pays " + said.called() + ", which is no payment of it");
            } else if (is.minor() != said.minor() || !said.account().equals(is.account())) {
                findings.add("File " + file.serial() + " says otherwise of " + said.called() + ": " + said.minor()
                        + " in minor units to " + said.payee());
            }
        });
        payments.keySet().forEach(missing -> findings.add("File " + file.serial() + " does not pay " + missing));
        return findings.subList(0, Math.min(MOST_FINDINGS, findings.size()));
    }

    /** @param batch whose payments they carry; null for all */
    private List<Carried> carried(@Nullable BatchId batch) {
        return jdbc.sql("""
                        SELECT f.id, f.serial, w.method FROM bank_file f JOIN way_to_pay w ON w.id = f.way_id
                        WHERE f.purpose = :purpose AND f.state <> :refused AND (:batch IS NULL OR f.id IN (
                          SELECT i.file_id FROM electronic_item i JOIN payment p ON p.id = i.payment_id WHERE p.batch_id = :batch))
                        ORDER BY f.id
                        """)
                .param("purpose", FilePurpose.ELECTRONIC.name())
                .param("refused", FileState.REFUSED.name())
                .param("batch", batch == null ? null : batch.value())
                .query((r, n) ->
                        new Carried(r.getLong("id"), r.getLong("serial"), PaymentMethod.valueOf(r.getString("method"))))
                .list();
    }

    /** Those that stand in a file and were not refused singly, by reference. */
    private Map<String, Is> payments(long file, boolean withAccounts) {
        Map<String, Is> payments = new HashMap<>();
        jdbc.sql("""
                        SELECT i.called, p.id, p.amount_minor, c.bank_sealed, p.payee FROM bank_file_item x
                        JOIN electronic_item i ON i.payment_id = x.payment_id JOIN payment p ON p.id = x.payment_id
                        JOIN claim c ON c.id = p.claim_id WHERE x.file_id = ?
                        """).param(file).query((java.sql.ResultSet r) -> {
            String sealed = r.getString("bank_sealed");
            payments.put(
                    r.getString("called"),
                    new Is(
                            r.getLong("id"),
                            r.getLong("amount_minor"),
                            withAccounts && sealed != null
                                    ? BankDetails.of(seal.open(sealed)).account()
                                    : null,
                            r.getString("payee")));
        });
        return payments;
    }

    private void read(Carried file, java.util.function.Consumer<SaidPayment> said) {
        try (InputStream content = files.open(file.file())) {
            PaymentFileReader.read(file.method(), content, said);
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }
}
