package leveltally.server.selection;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Selection;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Runs the criteria over what is owed; the same for the list, the slip and the batch that is made. */
@Service
public class Due {
    private final CandidateRows rows;
    private final BankAccounts accounts;

    Due(CandidateRows rows, BankAccounts accounts) {
        this.rows = rows;
        this.accounts = accounts;
    }

    @Transactional(readOnly = true)
    public Selection select(DueQuestion question) {
        BankAccount account = accounts.get(question.bankAccount());
        Criteria criteria = question.criteria(account, accounts.company().graceDays());
        List<Candidate> candidates = new ArrayList<>(rows.askedFor(criteria));
        Set<InvoiceId> seen = new HashSet<>();
        candidates.forEach(candidate -> seen.add(candidate.invoice().id()));
        List<InvoiceId> added = question.add().stream()
                .map(InvoiceId::new)
                .filter(id -> !seen.contains(id))
                .toList();
        candidates.addAll(rows.named(added));
        Set<InvoiceId> out = new HashSet<>();
        question.out().forEach(id -> out.add(new InvoiceId(id)));
        return Selection.of(criteria, candidates, out);
    }
}
