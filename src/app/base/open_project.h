#pragma once
// The open project as a file: opened, saved, kept safe by its journal, brought back after a crash. Saving
// goes on meanwhile.

#include <QObject>
#include <QString>
#include <QStringList>
#include <memory>

#include "core/base/result.h"

namespace erdwerk::document {
class Document;
}
namespace erdwerk::format {
class Keeper;
struct Recovery;
}  // namespace erdwerk::format

namespace erdwerk::app {

class Session;

class OpenProject : public QObject {
    Q_OBJECT
public:
    explicit OpenProject(Session& session);
    ~OpenProject() override;

    /// Empty while it has none.
    [[nodiscard]] QString path() const;
    [[nodiscard]] bool isChanged() const;
    [[nodiscard]] bool isReadOnly() const;
    [[nodiscard]] const format::Keeper& keeper() const;

    void startNew(const document::Document& document);
    /// Opens a project with what a journal beside it holds; recovery() tells of that.
    Result<void> open(const QString& path);
    [[nodiscard]] const format::Recovery& recovery() const;
    /// Opens a project file as a new, unnamed project (the demo, or to work beside another window).
    Result<void> openCopy(const QString& path);
    /// What is open goes on as an unnamed project of its own.
    void workOnCopy();
    /// Unnamed projects that a crash left behind: what to give to recoverLost.
    [[nodiscard]] static QStringList lostProjects();
    /// Brings one of them back as an unnamed project.
    Result<void> recoverLost(const QString& base);
    /// Ends journalling; the journal goes when the last save holds everything.
    void close(bool discardChanges);

    /// Starts saving what is there now, on a worker; saved() or message() tells how it went. Goes on after
    /// one that runs.
    void save(const QString& path);
    /// Saves and waits for it; the window goes on painting.
    Result<void> saveAndWait(const QString& path);
    [[nodiscard]] bool isSaving() const;
    /// Lets a save that runs end.
    void waitForSave();

    /// Into the journal: the session's newest document.
    void keep(const QString& what);
    /// Looks at the lock now, as it does every half minute.
    void beat();

Q_SIGNALS:
    void keepingChanged();  ///< keeper().state() or reason()
    void savingChanged();   ///< isSaving() or isChanged()
    void saved(const QString& path);
    void message(const QString& text, bool isError);

private:
    void setNeverSaved();
    void startSaving(const QString& path);
    void finishSaving();
    void tellKeeping();

    Session& session_;
    struct Inner;  ///< keeper, lock, the save that runs
    std::unique_ptr<Inner> inner_;
};

}  // namespace erdwerk::app
