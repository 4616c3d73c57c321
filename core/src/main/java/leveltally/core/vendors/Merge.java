package leveltally.core.vendors;

import java.util.Currency;
import java.util.List;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/** Whether one vendor can become another that it always was. */
public record Merge(Side gone, Side kept) {
    private static final int MOST_NAMED = 5;

    /**
     * One of the two.
     *
     * @param mergedInto what it became already; null for most
     * @param held why payments to it are held; null while they are not
     */
    public record Side(
            VendorId id,
            String number,
            String name,
            Currency currency,
            @Nullable String mergedInto,
            @Nullable String held) {
        private String inWords() {
            return name + " (" + number + ")";
        }
    }

    /**
     * @param reserved how many documents of the one that goes stand in batches under way
     * @param waiting how many changes of its addresses wait for a second person
     * @param twice references that both have
     * @throws Refusal naming what stands in the way
     */
    public void mustBePossible(long reserved, long waiting, List<String> twice) {
        refuseIf(gone.id().equals(kept.id()), "merge-itself", gone.inWords() + " is itself already. Choose another.");
        for (Side side : List.of(gone, kept)) {
            refuseIf(
                    side.mergedInto() != null,
                    "merged-already",
                    side.inWords() + " became " + side.mergedInto() + " already. Choose that one.");
        }
        refuseIf(
                !gone.currency().equals(kept.currency()),
                "merge-currencies",
                gone.inWords() + " is paid in " + gone.currency() + ", " + kept.inWords() + " in " + kept.currency()
                        + ". Such two stay two.");
        refuseIf(
                gone.held() != null,
                "merge-held",
                gone.inWords() + " is held: " + gone.held() + ". Release it first, or what is held would be paid.");
        refuseIf(
                reserved > 0,
                "merge-reserved",
                reserved + (reserved == 1 ? " document of " : " documents of ") + gone.inWords()
                        + (reserved == 1 ? " stands" : " stand") + " in a batch under way. Post or withdraw it first.");
        refuseIf(
                waiting > 0,
                "merge-waits",
                "A change of " + gone.inWords() + " waits for a second person. Have it confirmed or refused first.");
        refuseIf(
                !twice.isEmpty(),
                "merge-twice",
                "Both have a document with the reference "
                        + String.join(", ", twice.subList(0, Math.min(MOST_NAMED, twice.size())))
                        + (twice.size() > MOST_NAMED ? " and more" : "")
                        + ". It may have come in twice: look at both, and settle that first.");
    }

    private static void refuseIf(boolean wrong, String code, String sentence) {
        if (wrong) {
            throw Refusal.invalidField(code, "kept", sentence);
        }
    }
}
