package leveltally.server.batches;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Said;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.AccountLine;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import leveltally.server.invoices.OpenItems;
import leveltally.server.invoices.Prepayments;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.Accounts;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Understands what a typed payment is for where no invoice is paid: accounts of the ledger, or an invoice to come. */
@Component
public class TypedLines {
    private static final int MOST_JOB = 20;

    private final Accounts accounts;
    private final AccountRoles roles;
    private final OpenItems openItems;
    private final Prepayments prepayments;

    TypedLines(Accounts accounts, AccountRoles roles, OpenItems openItems, Prepayments prepayments) {
        this.accounts = accounts;
        this.roles = roles;
        this.openItems = openItems;
        this.prepayments = prepayments;
    }

    /**
     * What was read for many rows.
     *
     * @param accounts by their codes
     * @param owed the open items that carry one of the references
     * @param ahead the account of what is paid ahead; null while the ledger has none
     * @param prepaid the references ahead of which something is paid already, with where, in words
     */
    public record Known(
            Map<String, LedgerAccount> accounts,
            List<OpenItems.OwedTo> owed,
            @Nullable AccountId ahead,
            Map<Prepayments.Named, String> prepaid) {}

    /** The accounts of the ledger by their codes. */
    public Map<String, LedgerAccount> accounts() {
        return accounts.all().stream()
                .collect(Collectors.toMap(account -> account.facts().code(), account -> account, (a, b) -> a));
    }

    /**
     * Reads what rows are understood by; as many statements for many as for one.
     *
     * @param batch the one they stand in already; 0 for none
     */
    public Known know(
            Map<String, LedgerAccount> codes,
            Currency currency,
            Collection<VendorId> vendors,
            Set<String> references,
            long batch) {
        return new Known(
                codes,
                openItems.referenced(vendors, references),
                roles.find(AccountRole.PREPAYMENTS, currency).orElse(null),
                prepayments.paidAhead(vendors, references, batch));
    }

    /**
     * Pays accounts, with no invoice.
     *
     * @param reference what the line is called
     * @throws Refusal when one of them cannot be paid so, or their shares are not what is paid
     */
    public static ClaimLine direct(
            Said.Accounts said, String reference, Money paid, LocalDate ledgerDate, Known known) {
        List<AccountLine> shares = new ArrayList<>();
        for (Said.Share share : said.shares()) {
            shares.add(share(share, said.shares().size() == 1, paid, ledgerDate, known));
        }
        return ClaimLine.Direct.paying(paid, reference, shares);
    }

    private static AccountLine share(Said.Share share, boolean only, Money paid, LocalDate ledgerDate, Known known) {
        LedgerAccount account = known.accounts().get(share.code());
        AccountKind kind = account.facts().kind();
        if (kind == AccountKind.CASH || kind == AccountKind.PAYABLES) {
            throw said(account.inWords() + " is an account of "
                    + (kind == AccountKind.CASH ? "cash" : "what is owed")
                    + ". Name the expense it is, or the invoices.");
        }
        if (account.id().equals(known.ahead())) {
            throw said(account.inWords() + " takes what is paid ahead. Say ahead of which invoice: ahead PO-118.");
        }
        account.mustTake(ledgerDate);
        if (share.job().length() > MOST_JOB) {
            throw said("A job has at most " + MOST_JOB + " characters; “" + share.job() + "” has more.");
        }
        String typed = share.amount();
        if (typed == null && !only) {
            throw said("Say how much of it is for " + account.inWords() + ".");
        }
        Money amount = typed == null ? paid : Money.typed(typed, paid.currency(), "said");
        return new AccountLine(account.id(), share.job(), amount);
    }

    /**
     * Pays ahead of an invoice.
     *
     * @param above what rows above pay ahead of; this one joins them
     * @throws Refusal when that invoice is here, or something stands ahead of it already
     */
    public static ClaimLine ahead(
            Said.Ahead said, VendorId vendor, Money paid, Known known, Set<Prepayments.Named> above) {
        AccountId account = known.ahead();
        if (account == null) {
            throw said(
                    "The ledger has no account for prepayments yet. A controller or an administrator says which one it is,"
                            + " on the ledger's page of accounts.");
        }
        boolean here = known.owed().stream()
                .anyMatch(one ->
                        one.vendor().equals(vendor) && one.invoice().reference().equalsIgnoreCase(said.reference()));
        if (here) {
            throw said("The invoice " + said.reference() + " is here already, so nothing is paid ahead of it. Pay the"
                    + " invoice.");
        }
        Prepayments.Named named = Prepayments.Named.of(vendor, said.reference());
        String where = above.add(named) ? known.prepaid().get(named) : "stands above";
        if (where != null) {
            throw said("Something paid ahead of " + said.reference() + " " + where
                    + ". Give this one a reference of its own.");
        }
        return new ClaimLine.Prepayment(said.reference(), account, paid, said.usableFrom());
    }

    private static Refusal said(String sentence) {
        return Refusal.invalidField("typed-said", "said", sentence);
    }
}
