package leveltally.server.electronic;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FileState;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.electronic.FileSplit;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.electronic.ElectronicItems.Item;
import leveltally.server.electronic.FilingView.Step;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads where the filing of a batch stands. */
@Component
class FilingViews {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final BankAccounts accounts;
    private final ElectronicWays ways;
    private final ElectronicItems items;
    private final FilingLook looks;
    private final JdbcClient jdbc;

    FilingViews(
            Batches batches,
            ClaimRows claimRows,
            BankAccounts accounts,
            ElectronicWays ways,
            ElectronicItems items,
            FilingLook looks,
            JdbcClient jdbc) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.accounts = accounts;
        this.ways = ways;
        this.items = items;
        this.looks = looks;
        this.jdbc = jdbc;
    }

    @Transactional(readOnly = true)
    FilingView of(Actor by, BatchId id) {
        by.mayDo(Deed.READ);
        Batch batch = batches.get(id);
        BankAccount account = accounts.get(batch.account());
        boolean fileable = batch.state() == BatchState.APPROVED || batch.state() == BatchState.FILED;
        ElectronicWay way = null;
        String notSetUp = "";
        try {
            way = ways.get(batch.account(), batch.way());
        } catch (Refusal unknown) {
            notSetUp = unknown.sentence();
        }
        FilingLook.Looked looked = way == null ? null : looks.seen(by, batch, way);
        Money ready = looked == null || looked.ready().isEmpty() ? Money.zero(account.currency()) : looked.total();
        return new FilingView(
                account.id().value(),
                account.name(),
                account.currency().getCurrencyCode(),
                account.way(batch.way()).name(),
                notSetUp,
                looked == null ? null : looked.paysOn(),
                way == null ? "" : ways.cutOff(way).inWords(),
                looked == null ? 0 : looked.ready().size(),
                ready.toString(),
                sizes(way, looked),
                refused(way, looked),
                fileable,
                lines(id, looked),
                files(id));
    }

    private static List<Money> amounts(FilingLook.Looked looked) {
        return looked.ready().stream().map(one -> one.claim().amount()).toList();
    }

    private static List<Integer> sizes(@Nullable ElectronicWay way, FilingLook.@Nullable Looked looked) {
        return way == null || looked == null ? List.of() : FileSplit.of(amounts(looked), way.perFile(), true);
    }

    private static String refused(@Nullable ElectronicWay way, FilingLook.@Nullable Looked looked) {
        if (way == null || looked == null) {
            return "";
        }
        try {
            FileSplit.of(amounts(looked), way.perFile(), way.splits());
            return "";
        } catch (Refusal tooLarge) {
            return tooLarge.sentence();
        }
    }

    private List<FilingView.FilingLine> lines(BatchId id, FilingLook.@Nullable Looked looked) {
        Map<ClaimId, Item> filed = items.of(id);
        Map<ClaimId, String> banks = claimRows.maskedBanks(id);
        Map<Long, Long> serials = serials(id);
        List<FilingView.FilingLine> lines = new ArrayList<>();
        for (Claim claim : claimRows.of(id)) {
            Item item = filed.get(claim.id());
            String kept = looked == null ? "" : looked.behind().getOrDefault(claim.id(), "");
            lines.add(new FilingView.FilingLine(
                    claim.id().value(),
                    item == null ? null : item.payment().value(),
                    claim.remitTo().payee(),
                    banks.getOrDefault(claim.id(), ""),
                    claim.amount().toString(),
                    item == null ? "" : item.called(),
                    step(item, kept),
                    item == null || item.file() == null ? null : serials.get(item.file()),
                    !kept.isEmpty() ? kept : item == null || !item.waitsForAFile() ? "" : item.refusedWhy()));
        }
        return lines;
    }

    private static Step step(@Nullable Item item, String kept) {
        if (item == null || item.waitsForAFile()) {
            return kept.isEmpty() ? Step.WAITS : Step.KEPT_BACK;
        }
        return item.posted()
                ? item.state().isInTheLedger() ? Step.POSTED : Step.UNDONE
                : item.answer() == FileState.ACCEPTED ? Step.TAKEN : Step.IN_FILE;
    }

    private Map<Long, Long> serials(BatchId id) {
        Map<Long, Long> serials = new HashMap<>();
        files(id).forEach(file -> serials.put(file.id(), file.serial()));
        return serials;
    }

    /** The files that ever carried payments of a batch, the newest first. */
    private List<FilingView.PaymentFileView> files(BatchId id) {
        return jdbc.sql("""
                        SELECT f.id, f.serial, f.file_name, f.made_at, p.name AS made_by, f.items, f.total_minor, f.currency, f.pays_on,
                          f.state, f.answer_note, g.serial AS follows, h.at AS handed_at, q.name AS handed_by
                        FROM (SELECT DISTINCT x.file_id FROM payment y JOIN bank_file_item x ON x.payment_id = y.id
                          WHERE y.batch_id = :batch) d
                        JOIN bank_file f ON f.id = d.file_id JOIN person p ON p.id = f.made_by
                        LEFT JOIN bank_file g ON g.id = f.follows_id
                        LEFT JOIN bank_file_handing h ON h.id = (SELECT MAX(z.id) FROM bank_file_handing z WHERE z.file_id = f.id)
                        LEFT JOIN person q ON q.id = h.person_id ORDER BY f.id DESC
                        """)
                .param("batch", id.value())
                .query((r, n) -> {
                    FileState state = FileState.valueOf(r.getString("state"));
                    Timestamp handed = r.getTimestamp("handed_at");
                    return new FilingView.PaymentFileView(
                            r.getLong("id"),
                            r.getLong("serial"),
                            r.getString("file_name"),
                            r.getTimestamp("made_at").toInstant(),
                            r.getString("made_by"),
                            r.getInt("items"),
                            MoneyView.of(r.getLong("total_minor"), r.getString("currency"))
                                    .text(),
                            r.getObject("pays_on", LocalDate.class),
                            state,
                            state.words(),
                            r.getString("answer_note"),
                            r.getObject("follows", Long.class),
                            handed == null ? null : handed.toInstant(),
                            r.getString("handed_by"));
                })
                .list();
    }
}
