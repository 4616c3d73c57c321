package leveltally.server.batches;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.WayToPay;
import leveltally.server.selection.DueQuestion;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes the drafts of a run in several ways at once: all of them, or none. */
@Service
public class RunMaking {
    private final Making making;
    private final BankAccounts accounts;

    RunMaking(Making making, BankAccounts accounts) {
        this.making = making;
        this.accounts = accounts;
    }

    /** A batch of the run: what the clerk saw that this way takes. */
    public record Part(long account, long way, int expectedCount, String expectedToPay) {}

    /**
     * @param name of the run; each batch is called after it and its way
     * @param question the sentence, asked again by each way
     * @param criteria the kept criteria it was asked by; null for none
     */
    public record Run(
            String name,
            String note,
            DueQuestion question,
            List<Part> parts,
            @Nullable Long criteria) {}

    /** In the order of the parts. */
    @Transactional
    public List<BatchId> make(Actor by, Run wanted) {
        by.mayDo(Deed.EDIT_BATCH);
        if (wanted.parts().isEmpty()) {
            throw Refusal.invalidField(
                    "no-way", "parts", "No way is chosen, so there is no batch to make. Choose one.");
        }
        DueQuestion asked = wanted.question();
        BankAccount home = accounts.get(asked.bankAccount());
        long usual = home.payingWay(asked.wayId()).id().value();
        // one order for everybody, since each takes hold of its account
        List<Part> inOrder = new ArrayList<>(wanted.parts());
        inOrder.sort(Comparator.comparingLong(Part::account).thenComparingLong(Part::way));
        List<BatchId> made = new ArrayList<>();
        for (Part part : inOrder) {
            BankAccount from = accounts.get(new BankAccountId(part.account()));
            WayToPay way = from.payingWay(new WayId(part.way()));
            made.add(making.make(
                    by,
                    new NewBatch(
                            wanted.name().strip() + ", " + words(home, from, way),
                            wanted.note(),
                            part.expectedCount(),
                            part.expectedToPay(),
                            asked.from(from.id(), way.id()),
                            part.way() == usual ? wanted.criteria() : null)));
        }
        return wanted.parts().stream()
                .map(part -> made.get(inOrder.indexOf(part)))
                .toList();
    }

    /** {@code ACH}; {@code credit transfer, EUR} where it is another currency than that of the run. */
    private static String words(BankAccount home, BankAccount from, WayToPay way) {
        return way.method().words()
                + (from.currency().equals(home.currency())
                        ? ""
                        : ", " + from.currency().getCurrencyCode());
    }
}
