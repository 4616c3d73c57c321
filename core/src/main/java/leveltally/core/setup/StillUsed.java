package leveltally.core.setup;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.Refusal;

/**
 * What hangs on a bank account.
 *
 * @param batches under way
 * @param payments the bank has not paid or undone yet
 * @param events the bank has not been told yet
 */
public record StillUsed(long batches, long payments, long events) {
    /** What it is in words; empty when nothing hangs on it. */
    public String inWords() {
        List<String> words = new ArrayList<>();
        add(words, batches, "batch under way", "batches under way");
        add(words, payments, "payment outstanding", "payments outstanding");
        add(words, events, "check the bank has not been told of", "checks the bank has not been told of");
        return String.join(", ", words);
    }

    private static void add(List<String> words, long count, String one, String more) {
        if (count > 0) {
            words.add(count + " " + (count == 1 ? one : more));
        }
    }

    /** @throws Refusal naming what hangs on it */
    public void mustBeNone(String account) {
        if (!inWords().isEmpty()) {
            throw Refusal.conflict(
                    "account-in-use",
                    account + " cannot be closed yet: " + inWords()
                            + ". Finish these first: post or withdraw, clear or void, and tell the bank.");
        }
    }
}
