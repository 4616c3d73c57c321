package leveltally.server.clearing;

import java.sql.Timestamp;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.Layout;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.bankfiles.FileHeard;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Tells a bank what was decided of the checks it asks about: each decision in one file, and anew when it is changed. */
@Service
public class DecisionFiles implements FileHeard {
    /** What was answered and not told; one whose answer was taken back waits for the next. */
    private static final String UNTOLD =
            " FROM bank_decision d JOIN bank_movement m ON m.id = d.movement_id AND m.is_open IS NULL"
                    + " WHERE m.bank_account_id = ? AND d.decided_at >= ? AND d.file_id IS NULL";

    /** From a thousand values on MariaDB makes a list a table. */
    private static final int AT_ONCE = 900;

    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final KeptLayouts layouts;
    private final BankFiles files;

    DecisionFiles(JdbcClient jdbc, BankAccounts accounts, KeptLayouts layouts, BankFiles files) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.layouts = layouts;
        this.files = files;
    }

    /** How many decisions the bank has not heard, of those made since it hears them by file. */
    @Transactional(readOnly = true)
    public int waiting(BankAccountId account, Instant since) {
        return jdbc.sql("SELECT COUNT(*)" + UNTOLD)
                .params(account.value(), Timestamp.from(since))
                .query(Integer.class)
                .single();
    }

    private record Untold(long movement, BankFile.Item item) {}

    /**
     * Makes a file of them by the layout of this name.
     *
     * @param since what was decided before was told by people
     *
     * @return its id
     */
    @Transactional
    public long make(Actor by, BankAccountId account, String layout, Instant since) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        accounts.lock(account);
        KeptLayouts.TellingLayout kept = layouts.newest(layout, Layout.Use.DECISIONS)
                .orElseThrow(() -> Refusal.conflict(
                        "no-layout",
                        "No layout says how this bank is told of decisions. An administrator chooses one."));
        List<Untold> untold = jdbc.sql("""
                        SELECT d.movement_id, d.pays, m.meant, m.number_text, m.amount_minor, m.currency, m.bank_date, m.reference, m.text,
                          COALESCE((SELECT k.why FROM bank_match k WHERE k.movement_id = m.id AND k.undone_on IS NULL
                            ORDER BY k.id DESC LIMIT 1), '') AS why
                        """ + UNTOLD + " ORDER BY m.meant, m.id LIMIT 10000 FOR UPDATE")
                .params(account.value(), Timestamp.from(since))
                .query((r, n) -> {
                    LocalDate day = r.getObject("bank_date", LocalDate.class);
                    return new Untold(
                            r.getLong("movement_id"),
                            new BankFile.Item(
                                    r.getBoolean("pays") ? BankFile.Item.Kind.PAY : BankFile.Item.Kind.RETURN,
                                    r.getLong("meant"),
                                    r.getString("number_text"),
                                    Money.ofMinor(Math.abs(r.getLong("amount_minor")), r.getString("currency")),
                                    day,
                                    day,
                                    r.getString("text"),
                                    r.getString("reference"),
                                    r.getString("why")));
                })
                .list();
        if (untold.isEmpty()) {
            throw Refusal.conflict("nothing-decided", "The bank has heard every decision; there is nothing to tell.");
        }
        long file = files.ofDecisions(
                by, account, kept, untold.stream().map(Untold::item).toList());
        for (int from = 0; from < untold.size(); from += AT_ONCE) {
            jdbc.sql("UPDATE bank_decision SET file_id = :file WHERE movement_id IN (:movements)")
                    .param("file", file)
                    .param(
                            "movements",
                            untold.subList(from, Math.min(untold.size(), from + AT_ONCE)).stream()
                                    .map(Untold::movement)
                                    .toList())
                    .update();
        }
        return file;
    }

    @Override
    public FilePurpose purpose() {
        return FilePurpose.DECISIONS;
    }

    @Override
    @Transactional
    public void refused(long file) {
        jdbc.sql("UPDATE bank_decision SET file_id = NULL WHERE file_id = ?")
                .param(file)
                .update();
    }

    @Override
    public void refused(long file, List<BankAnswers.RefusedItem> items) {
        throw Refusal.conflict(
                "decisions-whole", "A file of decisions is taken whole or refused whole. Record it as refused.");
    }
}
