#pragma once
// The open project as the windows see it: document, history and journal, results worked out in the
// background, one selection and one hover for all views. It computes nothing itself.

#include <QObject>
#include <QString>
#include <QStringList>
#include <memory>
#include <optional>
#include <vector>

#include "app/base/outcome.h"
#include "core/document/history.h"
#include "core/document/transaction.h"
#include "core/geometry/vec.h"

namespace erdwerk::derive {
struct Derived;
}
namespace erdwerk::document {
class EditTrace;
}
namespace erdwerk::format {
class Keeper;
struct Recovery;
}  // namespace erdwerk::format

namespace erdwerk::app {

/// An object, or a part of it: a point of a set, a vertex of a line.
struct Ref {
    ObjectId object;
    std::optional<std::size_t> part;
    friend bool operator==(const Ref&, const Ref&) = default;
};

/// The same object or part after an edit; nothing when it is gone.
std::optional<Ref> carried(const Ref& ref, const document::EditTrace& trace, const document::Document& after);

struct Snapshot;
struct TextsShown;
using SnapshotPointer = std::shared_ptr<const Snapshot>;

/// A place that every view marks.
struct Hover {
    geometry::Vec2 place;
    std::optional<Ref> ref;        ///< what lies there
    std::optional<double> height;  ///< of the hovered thing or the surface
};

class Session : public QObject {
    Q_OBJECT
public:
    explicit Session(QObject* parent = nullptr);
    ~Session() override;

    // Document
    [[nodiscard]] const document::Document& document() const {
        return preview_ ? *preview_ : history_.current();
    }
    [[nodiscard]] const document::History& history() const { return history_; }
    [[nodiscard]] SnapshotPointer snapshot() const { return snapshot_; }
    [[nodiscard]] const derive::Derived& derived() const;
    /// The same, held on to: for edits that are prepared on it.
    [[nodiscard]] std::shared_ptr<const derive::Derived> results() const;
    [[nodiscard]] bool isOpen() const { return open_; }
    [[nodiscard]] bool isChanged() const;
    [[nodiscard]] bool isWorking() const;
    /// The results are not those of the document, and nothing is being worked out that would change that.
    [[nodiscard]] bool isStale() const;
    /// "results of 12:04, before the last edit", or empty when they are of the document as it is.
    [[nodiscard]] QString staleText() const;
    /// How far the edit or the results are that say so, per cent; 0 when they do not.
    [[nodiscard]] int workDone() const;
    [[nodiscard]] QString path() const;

    /// One edit of the newest document: journal, history, results. What it carries along and takes with it is
    /// said. An edit that changes nothing is not a step. A preview ends.
    /// While others are being worked out aside it waits for them; BadInput, "changed meanwhile", when one of
    /// them changed what it changes.
    Outcome edit(const QString& what, const document::Edit& edit);
    /// The same for an edit that may take longer than a frame: it is worked out aside, on the document as it
    /// is by then, and can be stopped; `then` is told what became of it. Edits keep the order in which they
    /// are asked for.
    void editAside(const QString& what, document::LongEdit edit, Then then = {});
    /// What is being worked out aside; empty when nothing is.
    [[nodiscard]] QString editing() const;
    /// Shows what an edit would make (while dragging). Ends with edit() or with endPreview().
    void preview(const document::Edit& edit);
    void endPreview();
    void undo();
    void redo();
    void goTo(std::size_t step);

    // Files
    void startNew(const document::Document& document);
    /// Opens a project with what a journal beside it holds; recovery() tells of that.
    Result<void> open(const QString& path);
    [[nodiscard]] const format::Recovery& recovery() const;
    /// Starts saving what is there now, aside; saved() or message() tells how it went. Goes on after one that
    /// runs.
    void save(const QString& path);
    /// Saves and waits for it; the window goes on painting.
    Result<void> saveAndWait(const QString& path);
    [[nodiscard]] bool isSaving() const;
    /// Lets a save that runs end.
    void waitForSave();
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
    [[nodiscard]] const format::Keeper& keeper() const;
    [[nodiscard]] bool isReadOnly() const;
    /// Looks at the lock now, as it does every half minute.
    void beat();

    // Selection and hover
    [[nodiscard]] const std::vector<Ref>& selection() const { return selection_; }
    void select(std::vector<Ref> refs);
    [[nodiscard]] bool isSelected(ObjectId id) const;
    /// The only selected object of a kind, if there is exactly one.
    template <class T>
    [[nodiscard]] std::optional<ObjectId> selected() const {
        std::optional<ObjectId> found;
        for (const Ref& r : selection_) {
            if (document().get<T>(r.object) == nullptr) continue;
            if (found && *found != r.object) return std::nullopt;
            found = r.object;
        }
        return found;
    }
    [[nodiscard]] const std::optional<Hover>& hover() const { return hover_; }
    void setHover(const std::optional<Hover>& hover);
    /// Of the plan's last picture.
    [[nodiscard]] const TextsShown& textsShown() const;
    void setTextsShown(TextsShown shown);
    /// Stops the edit that was asked for last, or the results when there is none.
    void cancelWork();
    /// Works out the results of the document as it is, after they were stopped.
    void workOut();
    /// Runs the event loop until all edits and results are there. For tests and pictures.
    void waitForResults();

Q_SIGNALS:
    void documentChanged();                         ///< edited, undone, opened; results follow
    void edited(const document::EditTrace& trace);  ///< before documentChanged: what became of parts
    void resultsChanged();                          ///< snapshot() is newer
    void selectionChanged();
    void hoverChanged();
    void textsShownChanged();  ///< others found no room, or tags stand for others
    void opened();             ///< another project is there: views fit to it
    void workingChanged(bool working);
    void keepingChanged();  ///< keeper().state() or reason()
    void savingChanged();
    void saved(const QString& path);
    void message(const QString& text, bool isError);
    void goToPlace(geometry::Vec2 place);  ///< all views move there

private:
    void changed(const QString& what, const document::EditTrace& trace);
    bool mayEdit();
    Outcome apply(Result<document::Performed> performed);
    void keep(const QString& what);
    void evaluate(bool cancelRunning);
    void carrySelection(const document::EditTrace& trace);
    void endEdits();
    void startSaving(const QString& path);
    void finishSaving();
    void tellKeeping();

    document::History history_;
    std::optional<document::Document> preview_;
    std::uint64_t savedNumber_ = 0;
    bool open_ = false;
    bool neverSaved_ = false;  ///< what is there was brought back, not saved
    bool stopped_ = false;     ///< the last work was stopped by hand or failed
    SnapshotPointer snapshot_;
    std::vector<Ref> selection_;
    std::optional<Hover> hover_;
    struct Inner;  ///< files, worker, what it remembers (session_inner.h)
    std::unique_ptr<Inner> inner_;
};

}  // namespace erdwerk::app
