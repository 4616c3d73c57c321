package leveltally.server.voiding;

import leveltally.core.people.Actor;

/** What is done once a second person agreed to it; one for each kind of question. */
interface Agreed {
    UndoingKind kind();

    /**
     * Locks what the deed needs, in the order of all locks, and says what speaks against it now; called before the answer is
     * written down.
     *
     * @return what does it, after the answer is written down
     * @throws leveltally.core.Refusal when it cannot be done as it was asked any more
     */
    Runnable prepare(Actor by, UndoingRows.Question question);
}
