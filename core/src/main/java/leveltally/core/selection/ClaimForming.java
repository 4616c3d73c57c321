package leveltally.core.selection;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.Settling;
import leveltally.core.money.Money;

/**
 * From what may be paid to claims: who shares one, which credits reduce it, and which come to nothing or too little. A
 * credit stands in one claim at most (law L9).
 */
final class ClaimForming {

    /** One claim as it is formed; {@code apart} holds one invoice that stands alone. */
    record Formed(List<Candidate> members, Settling settling, boolean apart) {
        Payee payee() {
            return members.get(0).payee();
        }
    }

    private final Criteria criteria;
    private final Marks marks;
    private final List<Formed> payable = new ArrayList<>();
    private final List<Formed> covered = new ArrayList<>();
    private final List<Formed> small = new ArrayList<>();

    private ClaimForming(Criteria criteria, Marks marks) {
        this.criteria = criteria;
        this.marks = marks;
    }

    /** @param credits the usable ones by the address they belong to */
    static ClaimForming of(
            Criteria criteria, Marks marks, List<Candidate> candidates, Map<Long, List<OpenCredit>> credits) {
        ClaimForming forming = new ClaimForming(criteria, marks);
        Map<Long, List<Candidate>> payees = new LinkedHashMap<>();
        for (Candidate candidate : candidates) {
            payees.computeIfAbsent(candidate.payee().remitTo(), none -> new ArrayList<>())
                    .add(candidate);
        }
        payees.forEach((remitTo, members) -> forming.payee(members, credits.getOrDefault(remitTo, List.of())));
        return forming;
    }

    List<Formed> payable() {
        return payable;
    }

    /** What credits settle altogether; without a credit it is nothing that is open. */
    List<Formed> covered() {
        return covered;
    }

    List<Formed> small() {
        return small;
    }

    private void payee(List<Candidate> members, List<OpenCredit> credits) {
        List<Candidate> others = new ArrayList<>();
        for (Candidate member : members) {
            if (member.ownCheck()) {
                keep(formed(List.of(member), List.of(), true));
            } else {
                others.add(member);
            }
        }
        if (others.isEmpty()) {
            return;
        }
        if (criteria.paying().grouping() == Paying.Grouping.PAYEE) {
            keep(formed(others, credits, false));
        } else {
            eachByItself(others, credits);
        }
    }

    /** What is too small in spite of its credits gives them back to the others. */
    private void eachByItself(List<Candidate> members, List<OpenCredit> credits) {
        List<Candidate> rest = new ArrayList<>(members);
        while (true) {
            Map<InvoiceId, List<OpenCredit>> laid = laid(rest, credits);
            List<Formed> formed = rest.stream()
                    .map(member -> formed(
                            List.of(member), laid.getOrDefault(member.invoice().id(), List.of()), true))
                    .toList();
            Set<Candidate> givingBack = new HashSet<>();
            for (Formed one : formed) {
                if (isSmall(one) && !one.settling().uses().isEmpty()) {
                    small.add(one);
                    givingBack.add(one.members().get(0));
                }
            }
            if (givingBack.isEmpty()) {
                formed.forEach(this::keep);
                return;
            }
            rest.removeAll(givingBack);
        }
    }

    /** Each credit, oldest first, on the earliest due invoice that can use all of it, else on the largest. */
    private static Map<InvoiceId, List<OpenCredit>> laid(List<Candidate> members, List<OpenCredit> credits) {
        Map<InvoiceId, List<OpenCredit>> laid = new HashMap<>();
        Map<InvoiceId, Money> left = new HashMap<>();
        members.forEach(
                member -> left.put(member.invoice().id(), member.invoice().open()));
        List<Candidate> byDue = members.stream()
                .sorted(Comparator.comparing(Candidate::invoice, Settling.DUE_FIRST))
                .toList();
        for (OpenCredit credit : credits.stream().sorted(Settling.OLDEST_FIRST).toList()) {
            byDue.stream()
                    .map(member -> member.invoice().id())
                    .filter(id -> left.get(id).compareTo(credit.open()) >= 0)
                    .findFirst()
                    .or(() -> byDue.stream()
                            .map(member -> member.invoice().id())
                            .filter(id -> left.get(id).isPositive())
                            .reduce((a, b) -> left.get(b).compareTo(left.get(a)) > 0 ? b : a))
                    .ifPresent(id -> {
                        laid.computeIfAbsent(id, none -> new ArrayList<>()).add(credit);
                        left.put(id, left.get(id).minus(credit.open().min(left.get(id))));
                    });
        }
        return laid;
    }

    private Formed formed(List<Candidate> members, List<OpenCredit> credits, boolean apart) {
        List<Settling.Owed> owed = members.stream()
                .map(member -> new Settling.Owed(member.invoice(), null))
                .toList();
        return new Formed(members, Settling.of(owed, credits, criteria.checkDate(), criteria.graceDays()), apart);
    }

    private boolean isSmall(Formed one) {
        Money smallest = criteria.paying().smallest();
        return smallest != null
                && one.settling().cash().isPositive()
                && one.settling().cash().compareTo(smallest) < 0
                && !marks.takesIn(one.members());
    }

    private void keep(Formed one) {
        if (!one.settling().cash().isPositive()) {
            covered.add(one);
        } else if (isSmall(one)) {
            small.add(one);
        } else {
            payable.add(one);
        }
    }
}
