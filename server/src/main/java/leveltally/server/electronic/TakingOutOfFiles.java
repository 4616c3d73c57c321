package leveltally.server.electronic;

import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.batches.Batches;
import leveltally.server.electronic.ElectronicItems.Item;
import leveltally.server.printing.TakingOut;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Takes payments out of a batch that goes by file, as long as no bank may go by a file with them. */
@Service
class TakingOutOfFiles {
    private final Batches batches;
    private final ElectronicItems items;
    private final TakingOut takingOut;

    TakingOutOfFiles(Batches batches, ElectronicItems items, TakingOut takingOut) {
        this.batches = batches;
        this.items = items;
        this.takingOut = takingOut;
    }

    /** @throws Refusal naming the first that stands in a file */
    @Transactional
    void takeOut(Actor by, BatchId id, Set<ClaimId> claims, String why) {
        by.mayDo(Deed.PRINT);
        batches.lockAnyVersion(id);
        Map<ClaimId, Item> filed = items.of(id);
        List<Item> carried = claims.stream()
                .filter(filed::containsKey)
                .map(filed::get)
                .filter(item -> !item.waitsForAFile())
                .toList();
        carried.stream().findFirst().ifPresent(item -> {
            throw Refusal.conflict(
                    "stands-in-a-file",
                    item.called()
                            + (item.posted()
                                    ? " is in the ledger. Reverse it instead."
                                    : " stands in a file the bank may pay by. Record first that the bank refused it."));
        });
        takingOut.takeOut(by, id, claims, false, why);
    }
}
