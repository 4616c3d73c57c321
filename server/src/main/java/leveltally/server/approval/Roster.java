package leveltally.server.approval;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.approval.Answering;
import leveltally.core.approval.Approver;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;

/** Who may be asked on a day, and for whom each of them stands in. */
record Roster(Map<PersonId, Approver> people, Map<PersonId, List<Approver>> standsIn) {

    Approver of(Actor by) {
        return people.getOrDefault(by.person(), new Approver(by.person(), by.name(), by.roles()));
    }

    List<Approver> standsInFor(PersonId deputy) {
        return standsIn.getOrDefault(deputy, List.of());
    }

    /** Everybody who may approve the step now, for themselves or for somebody else. */
    Set<PersonId> asked(Answering answering) {
        return people.values().stream()
                .filter(one -> answering.mayApprove(one, standsInFor(one.id())).isPresent())
                .map(Approver::id)
                .collect(Collectors.toSet());
    }

    String name(PersonId person) {
        Approver known = people.get(person);
        return known == null ? "somebody who left" : known.name();
    }
}
