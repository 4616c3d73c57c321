package leveltally.server.selection;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.ledger.WayId;
import leveltally.core.selection.Selection;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.WayToPay;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** A question asked of all ways to pay at once: checks, files, and what other currencies are paid from. */
@Service
public class WholeRun {
    private final BankAccounts accounts;
    private final Due due;

    WholeRun(BankAccounts accounts, Due due) {
        this.accounts = accounts;
        this.due = due;
    }

    /**
     * What one way pays.
     *
     * @param question the sentence as it is for this way alone
     */
    public record Part(BankAccount from, WayToPay by, DueQuestion question, Selection selection) {}

    /**
     * What is taken by each way, that of the question first; ways that take nothing are left out. The same vendor is never
     * in two: of the ways that pay one currency by one method only the first counts, beginning with the account asked for.
     *
     * @throws Refusal where a limit is asked for: it is of one batch, and would be spent several times
     */
    @Transactional(readOnly = true)
    public List<Part> of(DueQuestion asked, LocalDate today) {
        if (asked.isLimited()) {
            throw Refusal.invalidField(
                    "limit-of-one",
                    "limit",
                    "A limit is of one batch and would be spent by every way again. Take it out of the sentence, or make the"
                            + " batches one by one.");
        }
        record Reached(String currency, String method) {}
        BankAccount first = accounts.get(asked.bankAccount());
        WayId usual = first.payingWay(asked.wayId()).id();
        List<BankAccount> all = new ArrayList<>(accounts.list());
        // the main account first, but for the one that is asked for; likewise its ways
        all.sort(Comparator.comparing(one -> !one.id().equals(first.id())));
        Set<Reached> reached = new HashSet<>();
        List<Part> parts = new ArrayList<>();
        for (BankAccount account : all) {
            boolean sameCurrency = account.currency().equals(first.currency());
            if (account.closedOn() != null || (asked.saysAmounts() && !sameCurrency)) {
                continue;
            }
            List<WayToPay> ways = new ArrayList<>(account.payingWays());
            ways.sort(Comparator.comparing(one -> !one.id().equals(usual)));
            for (WayToPay way : ways) {
                if (reached.add(new Reached(
                        account.currency().getCurrencyCode(), way.method().name()))) {
                    DueQuestion question = asked.from(account.id(), way.id());
                    Selection selection = due.select(question, today);
                    if (!selection.taken().isEmpty()) {
                        parts.add(new Part(account, way, question, selection));
                    }
                }
            }
        }
        return parts;
    }
}
