package leveltally.core.exchange;

import leveltally.core.Refusal;

/** A folder at the bank, or below the one this server keeps for banks; empty for where one arrives. */
public record RemoteFolder(String path) {
    private static final int LONGEST = 200;

    public RemoteFolder {
        path = path.strip().replaceAll("/+$", "");
        boolean climbs = ("/" + path + "/").contains("/../");
        if (path.length() > LONGEST
                || climbs
                || path.chars().anyMatch(Character::isISOControl)
                || path.contains("\\")) {
            throw Refusal.invalidField(
                    "folder",
                    "folder",
                    "A folder is written like account-4417/in, without .. and in at most " + LONGEST + " characters.");
        }
    }

    /** Where a file of this name lies. */
    public String of(String name) {
        return path.isEmpty() ? name : path + "/" + name;
    }
}
