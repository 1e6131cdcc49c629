package app.knottag.server.backup;

/** What went wrong with a backup, and the way out, said to whoever asked for it. */
final class BackupException extends Exception {

    private static final long serialVersionUID = 1;

    BackupException(String says) {
        super(says);
    }
}
