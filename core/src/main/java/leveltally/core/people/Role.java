package leveltally.core.people;

/** What a person is trusted with; one person may hold several. */
public enum Role {
    CLERK,
    APPROVER,
    CONTROLLER,
    AUDITOR,
    ADMINISTRATOR
}
