package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writes entries, and reads them again. */
@Service
public class Ledger {
    /** As much as the sequence moves on. */
    private static final long ENTRIES_AT_ONCE = 100;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private long nextEntry;
    private long endOfEntries;

    Ledger(EntityManager entities, JdbcClient jdbc) {
        this.entities = entities;
        this.jdbc = jdbc;
    }

    /**
     * Writes an entry into a period the caller shares; the database refuses it for a locked one.
     *
     * @throws leveltally.core.Refusal when one of its accounts is closed on its day
     */
    @Transactional
    public EntryId write(Actor by, EntryKind kind, JournalEntry entry, EntryLinks links) {
        entry.lines().stream()
                .map(JournalLine::account)
                .distinct()
                .forEach(account -> entities.find(LedgerAccountEntity.class, account.value())
                        .view()
                        .mustTake(entry.ledgerDate()));
        JournalEntryEntity row = new JournalEntryEntity();
        row.id = nextEntry();
        row.ledgerDate = entry.ledgerDate();
        row.month = YearMonth.from(entry.ledgerDate()).toString();
        row.kind = kind;
        row.text = entry.text();
        row.batchId = links.batch();
        row.paymentId = links.payment();
        row.invoiceId = links.invoice();
        row.reversesId = links.reverses();
        row.madeAt = by.now();
        row.madeBy = by.person().value();
        // the lines first: the entry closes them, and the database takes it only when they balance (law L1)
        for (JournalLine line : entry.lines()) {
            JournalLineEntity lineRow = new JournalLineEntity();
            lineRow.entryId = row.id;
            lineRow.accountId = line.account().value();
            lineRow.currency = line.amount().currency().getCurrencyCode();
            boolean debit = line.side() == JournalLine.Side.DEBIT;
            lineRow.debitMinor = debit ? line.amount().minor() : 0;
            lineRow.creditMinor = debit ? 0 : line.amount().minor();
            entities.persist(lineRow);
        }
        entities.persist(row);
        return new EntryId(row.id);
    }

    private synchronized long nextEntry() {
        if (nextEntry == endOfEntries) {
            nextEntry = jdbc.sql("SELECT NEXT VALUE FOR entry_seq")
                    .query(Long.class)
                    .single();
            endOfEntries = nextEntry + ENTRIES_AT_ONCE;
        }
        return nextEntry++;
    }

    /** An entry as it was written. */
    @Transactional(readOnly = true)
    public JournalEntry entry(EntryId id) {
        return entries(List.of(id)).get(id);
    }

    /** Entries as they were written. */
    @Transactional(readOnly = true)
    public Map<EntryId, JournalEntry> entries(Collection<EntryId> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        List<Long> wanted = ids.stream().map(EntryId::value).toList();
        Map<Long, List<JournalLine>> lines = new HashMap<>();
        entities.createQuery(
                        "select l from JournalLineEntity l where l.entryId in :entries order by l.id",
                        JournalLineEntity.class)
                .setParameter("entries", wanted)
                .getResultStream()
                .forEach(line -> {
                    boolean debit = line.debitMinor > 0;
                    Money amount = Money.ofMinor(debit ? line.debitMinor : line.creditMinor, line.currency);
                    var side = debit ? JournalLine.Side.DEBIT : JournalLine.Side.CREDIT;
                    lines.computeIfAbsent(line.entryId, none -> new ArrayList<>())
                            .add(new JournalLine(new AccountId(line.accountId), side, amount));
                });
        return entities.createQuery(
                        "select e from JournalEntryEntity e where e.id in :entries", JournalEntryEntity.class)
                .setParameter("entries", wanted)
                .getResultStream()
                .collect(Collectors.toMap(
                        row -> new EntryId(row.id),
                        row -> new JournalEntry(row.ledgerDate, row.text, lines.get(row.id))));
    }
}
