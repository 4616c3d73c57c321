package leveltally.server.people;

/** The password of all demo people, offered on the sign-in page; outside demo mode no demo person exists. */
public final class DemoPassword {
    public static final String VALUE = "skerrow-ferries";

    private DemoPassword() {}
}
