package leveltally.server.posting;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.posting.PaymentEntry;
import leveltally.server.approval.Verification;
import leveltally.server.batches.Batch;
import leveltally.server.batches.ClaimRows;
import leveltally.server.invoices.OpenItems;
import leveltally.server.invoices.Prepayments;
import leveltally.server.invoices.Settlements;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.payments.Payments;
import leveltally.server.voiding.Undoing;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Writes the entries of payments: what their claims settle, an entry each, the payments on their way. */
@Component
class PaymentEntries {
    private final ClaimRows claimRows;
    private final Verification verification;
    private final Payments payments;
    private final OpenItems openItems;
    private final Settlements settlements;
    private final BankAccounts accounts;
    private final Ledger ledger;
    private final AccountRoles roles;
    private final Undoing undoing;
    private final Prepayments prepayments;

    PaymentEntries(
            ClaimRows claimRows,
            Verification verification,
            Payments payments,
            OpenItems openItems,
            Settlements settlements,
            BankAccounts accounts,
            Ledger ledger,
            AccountRoles roles,
            Undoing undoing,
            Prepayments prepayments) {
        this.prepayments = prepayments;
        this.claimRows = claimRows;
        this.verification = verification;
        this.payments = payments;
        this.openItems = openItems;
        this.settlements = settlements;
        this.accounts = accounts;
        this.ledger = ledger;
        this.roles = roles;
        this.undoing = undoing;
    }

    /**
     * A payment that is to be posted.
     *
     * @param name what people call it, such as {@code Check 10012}
     * @param replaces the payment that is undone with its posting; null for none
     */
    record Ready(
            PaymentId payment,
            ClaimId claim,
            String name,
            String payee,
            @Nullable PaymentId replaces) {}

    /** Writes them in the transaction of the deed that posts them; the batch is locked, and its month shared. */
    @Transactional
    public void write(Actor by, Batch batch, List<Ready> good) {
        BankAccount account = accounts.get(batch.account());
        Map<ClaimId, Claim> claims =
                claimRows.of(batch.id()).stream().collect(Collectors.toMap(Claim::id, Function.identity()));
        List<Claim> posting = good.stream().map(one -> claims.get(one.claim())).toList();
        verification.verify(batch, posting);
        Map<PaymentId, String> replaced = new HashMap<>();
        good.forEach(one -> {
            PaymentId old = one.replaces();
            if (old != null) {
                replaced.put(old, one.name());
            }
        });
        undoing.replaced(by, replaced, batch.ledgerDate());
        Map<InvoiceId, Money> settling = Claim.settling(posting);
        openItems.mustBeOpenOn(batch.ledgerDate(), settling);
        Map<InvoiceId, AccountId> payables = openItems.payables(settling.keySet());
        var touched = new PaymentEntry.Accounts(
                account.paidFrom(batch.way()), roles.find(AccountRole.DISCOUNTS_TAKEN, account.currency()));
        List<ClaimId> released = new ArrayList<>();
        List<Payments.Entered> entered = new ArrayList<>();
        for (Ready one : good) {
            Claim claim = claims.get(one.claim());
            String text = one.name() + ", " + one.payee();
            JournalEntry entry = PaymentEntry.of(batch.ledgerDate(), text, claim.lines(), payables, touched);
            EntryLinks links =
                    EntryLinks.ofPayment(batch.id().value(), one.payment().value());
            EntryId written = ledger.write(by, EntryKind.PAYMENT, entry, links);
            settlements.settle(
                    claim.lines(),
                    batch.ledgerDate(),
                    batch.id().value(),
                    one.payment().value(),
                    written);
            entered.add(new Payments.Entered(one.payment(), one.name(), written));
            released.add(claim.id());
        }
        payments.post(by, entered);
        claimRows.release(released);
        List<ClaimId> ahead = posting.stream()
                .filter(claim ->
                        claim.lines().stream().anyMatch(line -> line.ahead().isPresent()))
                .map(Claim::id)
                .toList();
        if (!ahead.isEmpty()) {
            prepayments.arise(by, ahead);
        }
    }
}
