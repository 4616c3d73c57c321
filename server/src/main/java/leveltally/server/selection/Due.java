package leveltally.server.selection;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.CreditCandidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Marks;
import leveltally.core.selection.Selection;
import leveltally.server.company.Companies;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Runs the criteria over what is owed; the same for the list, the slip and the batch that is made. */
@Service
public class Due {
    private static final Comparator<Candidate> BY_DAY = Comparator.comparing(
                    (Candidate candidate) -> candidate.invoice().dueDate())
            .thenComparing(candidate -> candidate.payee().name(), String.CASE_INSENSITIVE_ORDER)
            .thenComparing(candidate -> candidate.invoice().id().value());

    private final CandidateRows rows;
    private final Cash cash;
    private final BankAccounts accounts;
    private final Companies companies;

    Due(CandidateRows rows, Cash cash, BankAccounts accounts, Companies companies) {
        this.rows = rows;
        this.cash = cash;
        this.accounts = accounts;
        this.companies = companies;
    }

    /** What the sentence says on a business date. */
    @Transactional(readOnly = true)
    public Criteria criteria(DueQuestion question, LocalDate today) {
        return criteria(question, today, 0);
    }

    private Criteria criteria(DueQuestion question, LocalDate today, long own) {
        BankAccount account = accounts.get(question.bankAccount());
        Money available = question.isLimitedToAvailable()
                ? cash.available(account, question.checkDay(account, today), own)
                        .available()
                : null;
        return question.criteria(account, companies.company().graceDays(), today, available);
    }

    @Transactional(readOnly = true)
    public Selection select(DueQuestion question, LocalDate today) {
        return select(criteria(question, today), question.marks(), 0);
    }

    /**
     * Runs the question of a batch again, with its own reservations free.
     *
     * @param byHand what was decided by hand in the batch since
     */
    @Transactional(readOnly = true)
    public Selection selectAgain(DueQuestion question, LocalDate today, long batch, Marks byHand) {
        return select(criteria(question, today, batch), question.marks(byHand), batch);
    }

    /** These invoices alone, as somebody adds them by hand, whatever the dates and filters say of them. */
    @Transactional(readOnly = true)
    public Selection only(Criteria criteria, List<Candidate> candidates) {
        return Selection.of(
                criteria,
                candidates,
                List.of(),
                new Marks(
                        Set.of(),
                        candidates.stream()
                                .map(candidate -> candidate.invoice().id())
                                .collect(Collectors.toSet())));
    }

    private Selection select(Criteria criteria, Marks marks, long own) {
        List<Candidate> candidates = new ArrayList<>(rows.askedFor(criteria, own));
        if (!marks.in().isEmpty()) {
            Set<InvoiceId> seen = new HashSet<>();
            candidates.forEach(candidate -> seen.add(candidate.invoice().id()));
            candidates.addAll(rows.named(
                    marks.in().stream().filter(id -> !seen.contains(id)).toList(), own));
        }
        candidates.sort(BY_DAY);
        List<CreditCandidate> credits = criteria.paying().credits()
                ? rows.credits(candidates.stream().map(c -> c.payee().vendor()).collect(Collectors.toSet()), own)
                : List.of();
        return Selection.of(criteria, candidates, credits, marks);
    }
}
