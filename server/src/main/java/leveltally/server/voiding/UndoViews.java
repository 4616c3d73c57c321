package leveltally.server.voiding;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import leveltally.core.Refusal;
import leveltally.core.checks.BankKnows;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.core.voiding.Effect;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.checks.BankEvents;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.Periods;
import leveltally.server.outside.CardStatements;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Puts what undoing would do before those who look: each payment, all together, and the months it touches. */
@Component
class UndoViews {
    private final Undoing undoing;
    private final BankEvents told;
    private final Accounts accounts;
    private final UndoMonths months;

    UndoViews(Undoing undoing, BankEvents told, Accounts accounts, UndoMonths months) {
        this.undoing = undoing;
        this.told = told;
        this.accounts = accounts;
        this.months = months;
    }

    /**
     * @param roles of whoever begins it; a controller's where it is finished only, because somebody asked for it before
     */
    @Transactional(readOnly = true)
    UndoView of(Actor by, Wanted wanted, Set<Role> roles) {
        List<Looked> looked = undoing.look(by, wanted, "");
        Map<Long, String> names = accounts.names();
        Map<CheckNumberId, BankKnows> bank = told.bankKnows(looked.stream()
                .map(Looked::check)
                .filter(Objects::nonNull)
                .map(check -> check.id())
                .toList());
        Map<String, Money> amounts = new TreeMap<>();
        looked.forEach(one -> amounts.merge(
                one.payment().amount().currency().getCurrencyCode(),
                one.payment().amount(),
                Money::plus));
        List<Looked> planned = looked.stream().filter(one -> one.plan() != null).toList();
        List<JournalEntry> writing = planned.stream()
                .flatMap(one -> one.planned().entries().stream())
                .toList();
        List<JournalEntry> undone =
                planned.stream().map(Looked::entry).filter(Objects::nonNull).toList();
        Map<YearMonth, Period> periods = months.periods(looked);
        boolean paper = looked.stream().allMatch(one -> one.check() != null);
        return new UndoView(
                what(looked, paper),
                paper,
                looked.stream()
                        .map(one -> view(one, names, bank, refused(one, periods, roles)))
                        .toList(),
                amounts.values().stream().map(MoneyView::of).toList(),
                recap(writing, names),
                months.of(writing, undone, names, periods),
                planned.stream().anyMatch(one -> one.planned().needsSecond()),
                looked.stream().anyMatch(Looked::comesBack),
                (int) looked.stream()
                        .filter(one -> refused(one, periods, roles) != null)
                        .count());
    }

    /** Why a payment cannot be undone as it is wanted: it has no plan, or its day lies in no open month. */
    private static @Nullable String refused(Looked one, Map<YearMonth, Period> periods, Set<Role> roles) {
        if (one.refused() != null) {
            return one.refused().sentence();
        }
        try {
            Periods.mustTakeNew(roles, periods, one.on());
            return null;
        } catch (Refusal noMonth) {
            return noMonth.sentence();
        }
    }

    private static String what(List<Looked> looked, boolean paper) {
        return looked.size() == 1
                ? UndoPlan.lowered(looked.get(0).name())
                : looked.size() + (paper ? " checks" : " payments");
    }

    private static UndoView.UndoneView view(
            Looked one, Map<Long, String> names, Map<CheckNumberId, BankKnows> bank, @Nullable String refused) {
        UndoPlan plan = one.plan();
        Effect effect = one.effect();
        Set<InvoiceId> chosen = plan == null ? Set.of() : plan.invoices();
        return new UndoView.UndoneView(
                one.payment().id().value(),
                one.check() == null ? null : one.check().id().value(),
                one.name(),
                one.payment().payee(),
                MoneyView.of(one.payment().amount()),
                one.payment().checkDate(),
                one.payment().ledgerDate(),
                one.on(),
                period(one.on()),
                plan == null ? List.of() : lines(plan.entries(), names),
                effect == null
                        ? List.of()
                        : effect.items().stream()
                                .map(item -> item(item, chosen))
                                .toList(),
                effect == null || effect.discountLost().isZero()
                        ? ""
                        : effect.discountLost().toString(),
                effect == null
                        ? ""
                        : effect.year()
                                .inWords(
                                        one.payment().checkDate().getYear(),
                                        one.payment().amount()),
                one.check() == null
                        ? ""
                        : Objects.requireNonNull(bank.get(one.check().id())).ofAVoid(),
                warning(one),
                refused);
    }

    private static String warning(Looked one) {
        if (one.plan() != null && one.plan().handedOver()) {
            return "Handed over as unclaimed: what it settled stays settled, and its money is owed to the state.";
        }
        CardStatements.On statement = one.statement();
        return statement == null
                ? ""
                : "It is matched on the issuer's statement " + statement.reference()
                        + "; the match loses this line, and the statement then bills more than is matched.";
    }

    private static List<UndoView.SideView> lines(List<JournalEntry> entries, Map<Long, String> names) {
        return entries.stream()
                .flatMap(entry -> entry.lines().stream())
                .map(line -> {
                    boolean debit = line.side() == JournalLine.Side.DEBIT;
                    String amount = line.amount().toString();
                    return new UndoView.SideView(
                            names.get(line.account().value()), debit ? amount : "", debit ? "" : amount);
                })
                .toList();
    }

    private static UndoView.UndoneItem item(Effect.OnItem item, Set<InvoiceId> chosen) {
        return new UndoView.UndoneItem(
                item.id().value(),
                item.reference(),
                item.becomes().words(),
                chosen.contains(item.id()) ? item.becomes().name() : "",
                item.moves().toString(),
                item.openBefore().toString(),
                item.openAfter().toString(),
                item.discount().isZero() ? "" : item.discount().toString(),
                item.lost());
    }

    /** Debits and credits of all entries together, by month and account. */
    private static List<UndoView.RecapView> recap(List<JournalEntry> writing, Map<Long, String> names) {
        record Key(YearMonth month, long account, String currency, JournalLine.Side side) {}
        Map<Key, Money> sums = new TreeMap<>(Comparator.comparing(Key::month)
                .thenComparing(Key::currency)
                .thenComparing(Key::side)
                .thenComparing(key -> names.getOrDefault(key.account(), "")));
        for (JournalEntry entry : writing) {
            for (JournalLine line : entry.lines()) {
                sums.merge(
                        new Key(
                                YearMonth.from(entry.ledgerDate()),
                                line.account().value(),
                                line.amount().currency().getCurrencyCode(),
                                line.side()),
                        line.amount(),
                        Money::plus);
            }
        }
        List<UndoView.RecapView> lines = new ArrayList<>();
        sums.forEach((key, sum) -> {
            boolean debit = key.side() == JournalLine.Side.DEBIT;
            lines.add(new UndoView.RecapView(
                    new Period(key.month(), false).inWords(),
                    names.get(key.account()),
                    debit ? sum.toString() : "",
                    debit ? "" : sum.toString(),
                    key.currency()));
        });
        return lines;
    }

    private static String period(LocalDate on) {
        return new Period(YearMonth.from(on), false).inWords();
    }
}
