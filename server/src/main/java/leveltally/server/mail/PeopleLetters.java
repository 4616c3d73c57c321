package leveltally.server.mail;

import java.util.List;
import leveltally.server.people.PersonChanges;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Tells people what others changed about their way in. */
@Component
class PeopleLetters {
    private final Outbox outbox;

    PeopleLetters(Outbox outbox) {
        this.outbox = outbox;
    }

    @EventListener
    void passwordWasSet(PersonChanges.PasswordWasSet set) {
        outbox.put(
                List.of(set.person()),
                new Letter(
                        "Your password was set",
                        List.of(
                                "Your password was set by somebody else; " + set.by() + " put it in force.",
                                "You change it at your next sign-in. If you did not ask for this, tell an auditor or a"
                                        + " controller at once."),
                        List.of(),
                        "Sign in",
                        "/"),
                set.at());
    }
}
