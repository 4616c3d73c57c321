package leveltally.server.selection;

/**
 * Where one invoice is.
 *
 * @param rest where it is and why, as it goes on after the words of the state
 * @param wayOut what would change that, and who can; empty where nothing needs to
 * @param canTake true when taking it in by hand is enough
 */
record WhereItIs(
        long invoice,
        long vendor,
        String vendorName,
        String reference,
        Whereabouts.State state,
        String rest,
        String wayOut,
        boolean canTake) {}
