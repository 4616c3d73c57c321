package leveltally.server.voiding;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.TwoPeople;
import leveltally.server.audit.AuditTrail;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The second person's word to what others asked for: it is done, or it is not. */
@Service
public class Questions {
    private final UndoingRows rows;
    private final AuditTrail audit;
    private final Map<UndoingKind, Agreed> does;

    Questions(UndoingRows rows, AuditTrail audit, List<Agreed> does) {
        this.rows = rows;
        this.audit = audit;
        this.does = does.stream().collect(Collectors.toMap(Agreed::kind, Function.identity()));
    }

    /** It is done as it was asked, or refused where it cannot be done any more. */
    @Transactional
    public void agree(Actor by, long id) {
        by.mayDo(Deed.AGREE_TO_UNDO);
        UndoingRows.Question question = rows.lockWaiting(id);
        TwoPeople.check(question.askedBy(), by.person());
        Set<PersonId> hands = rows.hands(question.wanted());
        if (hands.contains(by.person())) {
            throw Refusal.notAllowed(
                    "own-hand",
                    "You prepared one of these payments, or entered what it pays, so somebody else must agree.");
        }
        Runnable deed = does.get(question.kind()).prepare(by, question);
        rows.decide(by, id, UndoingState.DONE, "");
        deed.run();
    }

    /** A second person's no, or the word of whoever asked that it is not wanted any more. */
    @Transactional
    public void refuse(Actor by, long id, String why) {
        by.mayDo(Deed.REFUSE_TO_UNDO);
        UndoingRows.Question question = rows.lockWaiting(id);
        boolean own = question.askedBy().equals(by.person());
        if (!own) {
            by.mayDo(Deed.AGREE_TO_UNDO);
        }
        if (!own && why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", "Say why you do not agree, for whoever asked.");
        }
        rows.decide(by, id, own ? UndoingState.TAKEN_BACK : UndoingState.REFUSED, why.strip());
        audit.record(
                by,
                own ? "take back undoing" : "refuse undoing",
                "undoing " + id,
                Map.of("reason", question.reason(), "why", why.strip()));
    }
}
