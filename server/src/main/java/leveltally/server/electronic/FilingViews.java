package leveltally.server.electronic;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
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
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
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
    private final PaymentFileRows files;

    FilingViews(
            Batches batches,
            ClaimRows claimRows,
            BankAccounts accounts,
            ElectronicWays ways,
            ElectronicItems items,
            FilingLook looks,
            PaymentFileRows files) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.accounts = accounts;
        this.ways = ways;
        this.items = items;
        this.looks = looks;
        this.files = files;
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
                looked == null
                        ? 0
                        : (int) looked.unannounced().stream()
                                .map(one -> one.claim().remitTo().bankKey())
                                .distinct()
                                .count(),
                fileable,
                lines(id, looked),
                files.ofBatch(id));
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
                : item.taken() ? Step.TAKEN : Step.IN_FILE;
    }

    private Map<Long, Long> serials(BatchId id) {
        Map<Long, Long> serials = new HashMap<>();
        files.ofBatch(id).forEach(file -> serials.put(file.id(), file.serial()));
        return serials;
    }
}
