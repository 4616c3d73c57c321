package leveltally.core.batches;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountLine;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * What a claim pays on one thing: gross − discount − credit = cash. Each kind says what it debits and which open item it
 * settles, so that whoever posts, prints or approves it needs to know no kind.
 */
public sealed interface ClaimLine {
    /** How a line is kept; the order of the kinds is that of the lines in a digest. */
    enum Kind {
        INVOICE,
        CREDIT,
        PREPAYMENT,
        DIRECT,
        KEPT
    }

    Kind kind();

    String reference();

    /** What it takes off the open amount of its item, or pays on its accounts. */
    Money gross();

    /** The discount taken with it; only an invoice earns one. */
    default Money discount() {
        return Money.zero(gross().currency());
    }

    /** What of it is settled by credits instead of cash. */
    default Money credit() {
        return Money.zero(gross().currency());
    }

    /** What leaves the bank for it. */
    default Money cash() {
        return gross().minus(discount()).minus(credit());
    }

    /** The invoice or credit whose open amount it lowers; empty where there is none. */
    default Optional<InvoiceId> item() {
        return Optional.empty();
    }

    /** What is paid ahead with it, and waits for its invoice from its posting on. */
    default Optional<Prepayment> ahead() {
        return Optional.empty();
    }

    /** What it debits; less than nothing where it debits less than the other lines say. */
    List<Debit> debits();

    /** What it is for beside its amounts, text by text: with kind and amounts all that somebody agrees to. */
    List<String> content();

    /** What it adds to what the claim settles: below zero for a credit. */
    default Money settles() {
        return Money.sum(debits().stream().map(Debit::amount).toList(), gross().currency());
    }

    /** Pays an invoice, all of it or a part. */
    record Invoice(InvoiceId id, String reference, Money gross, Money discount, Money credit) implements ClaimLine {
        public Invoice {
            if (gross.minus(discount).minus(credit).isNegative() || discount.isNegative() || credit.isNegative()) {
                throw new IllegalArgumentException("line of " + reference + ": " + gross + " − " + discount + " − "
                        + credit + " pays less than 0");
            }
        }

        @Override
        public Kind kind() {
            return Kind.INVOICE;
        }

        @Override
        public Optional<InvoiceId> item() {
            return Optional.of(id);
        }

        @Override
        public List<String> content() {
            return List.of(String.valueOf(id.value()));
        }

        @Override
        public List<Debit> debits() {
            return List.of(new Debit.Payables(id, gross));
        }
    }

    /** Uses up what the claim's invoice lines are credited; pays nothing itself, and its own account is debited less. */
    record Credit(InvoiceId id, String reference, Money gross) implements ClaimLine {
        @Override
        public Kind kind() {
            return Kind.CREDIT;
        }

        @Override
        public Money credit() {
            return gross;
        }

        @Override
        public Optional<InvoiceId> item() {
            return Optional.of(id);
        }

        @Override
        public List<String> content() {
            return List.of(String.valueOf(id.value()));
        }

        @Override
        public List<Debit> debits() {
            return List.of(new Debit.Payables(id, gross.negated()));
        }
    }

    /**
     * Pays ahead of an invoice that will name the same reference.
     *
     * @param usableFrom it is matched with no invoice before; null for at once
     */
    record Prepayment(
            String reference,
            AccountId prepayments,
            Money gross,
            @Nullable LocalDate usableFrom) implements ClaimLine {
        public Prepayment {
            mustBePositive(reference, gross);
        }

        /** What is said of it to people. */
        public static String inWords(String reference, @Nullable LocalDate usableFrom) {
            return "paid ahead of " + reference
                    + (usableFrom == null ? "" : ", usable from " + Dates.inWords(usableFrom));
        }

        @Override
        public Optional<Prepayment> ahead() {
            return Optional.of(this);
        }

        @Override
        public Kind kind() {
            return Kind.PREPAYMENT;
        }

        @Override
        public List<String> content() {
            return List.of(
                    reference, String.valueOf(prepayments.value()), usableFrom == null ? "" : usableFrom.toString());
        }

        @Override
        public List<Debit> debits() {
            return List.of(new Debit.Account(prepayments, gross));
        }
    }

    /**
     * An expense paid in one step, with no invoice entered first.
     *
     * @param accounts what it is for; single ones may be below zero, their sum is not
     */
    record Direct(String reference, List<AccountLine> accounts) implements ClaimLine {
        public Direct {
            accounts = List.copyOf(accounts);
            if (accounts.isEmpty()) {
                throw new IllegalArgumentException("line of " + reference + ": no account to debit");
            }
            mustBePositive(reference, sum(accounts));
        }

        /** @throws Refusal when the shares are not what is paid */
        public static Direct paying(Money paid, String reference, List<AccountLine> shares) {
            Money sum = Money.sum(shares.stream().map(AccountLine::amount).toList(), paid.currency());
            if (!sum.equals(paid)) {
                throw Refusal.invalidField(
                        "typed-said", "said", "The shares come to " + sum + ", and " + paid + " is paid.");
            }
            return new Direct(reference, shares);
        }

        private static Money sum(List<AccountLine> accounts) {
            return Money.sum(
                    accounts.stream().map(AccountLine::amount).toList(),
                    accounts.get(0).amount().currency());
        }

        @Override
        public Kind kind() {
            return Kind.DIRECT;
        }

        @Override
        public Money gross() {
            return sum(accounts);
        }

        @Override
        public List<String> content() {
            Stream<String> lines = accounts.stream()
                    .flatMap(line -> Stream.of(
                            String.valueOf(line.account().value()),
                            line.job(),
                            line.amount().plain()));
            return Stream.concat(Stream.of(reference, String.valueOf(accounts.size())), lines)
                    .toList();
        }

        @Override
        public List<Debit> debits() {
            return accounts.stream()
                    .<Debit>map(line -> new Debit.Account(line.account(), line.amount()))
                    .toList();
        }
    }

    /**
     * A line of a payment that is replaced, with its amount and discount whatever the date is now.
     *
     * @param of the claim of the payment that is replaced
     */
    record Kept(ClaimLine line, ClaimId of) implements ClaimLine {
        public Kept {
            if (line instanceof Kept) {
                throw new IllegalArgumentException("line of " + line.reference() + ": what is kept is kept once");
            }
        }

        @Override
        public Kind kind() {
            return Kind.KEPT;
        }

        @Override
        public String reference() {
            return line.reference();
        }

        @Override
        public Money gross() {
            return line.gross();
        }

        @Override
        public Money discount() {
            return line.discount();
        }

        @Override
        public Money credit() {
            return line.credit();
        }

        @Override
        public Optional<InvoiceId> item() {
            return line.item();
        }

        @Override
        public Optional<Prepayment> ahead() {
            return line.ahead();
        }

        @Override
        public List<String> content() {
            Stream<String> kept =
                    Stream.of(String.valueOf(of.value()), line.kind().name());
            return Stream.concat(kept, line.content().stream()).toList();
        }

        @Override
        public List<Debit> debits() {
            return line.debits();
        }
    }

    private static void mustBePositive(String reference, Money amount) {
        if (!amount.isPositive()) {
            throw new IllegalArgumentException("line of " + reference + ": " + amount + " is not above 0");
        }
    }
}
