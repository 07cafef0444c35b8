#pragma once
// The open project as the windows see it: the document and its history, edits, results worked out in the
// background. Its file and what is selected stand beside it (OpenProject, Selection). It computes nothing
// itself.

#include <QObject>
#include <QString>
#include <QStringList>
#include <memory>
#include <optional>
#include <vector>

#include "app/base/outcome.h"
#include "app/base/selection.h"
#include "core/document/history.h"
#include "core/document/transaction.h"
#include "core/geometry/vec.h"

namespace erdwerk::derive {
struct Derived;
}
namespace erdwerk::document {
class EditTrace;
}

namespace erdwerk::app {

class OpenProject;
struct Snapshot;
struct TextsShown;
using SnapshotPointer = std::shared_ptr<const Snapshot>;

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
    [[nodiscard]] bool isWorking() const;
    /// The results are not those of the document, and nothing is being worked out that would change that.
    [[nodiscard]] bool isStale() const;
    /// "results of 12:04, before the last edit", or empty when they are of the document as it is.
    [[nodiscard]] QString staleText() const;
    /// How far the edit or the results are that say so, per cent; 0 when they do not.
    [[nodiscard]] int workDone() const;

    /// One edit of the newest document: journal, history, results. What it carries along and takes with it is
    /// said. An edit that changes nothing is not a step. A preview ends.
    /// While others are being worked out on a worker it waits for them; BadInput, "changed meanwhile", when
    /// one of them changed what it changes.
    Outcome edit(const QString& what, const document::Edit& edit);
    /// The same for an edit that may take longer than a frame: it is worked out on a worker, on the document
    /// as it is by then, and can be stopped; `then` is told what became of it. Edits keep the order in which
    /// they are asked for.
    void longEdit(const QString& what, document::LongEdit edit, Then then = {});
    /// What is being worked out on a worker; empty when nothing is.
    [[nodiscard]] QString editing() const;
    /// Shows what an edit would make (while dragging). Ends with edit() or with endPreview().
    void preview(const document::Edit& edit);
    void endPreview();
    void undo();
    void redo();
    void goTo(std::size_t step);

    /// The project as a file.
    [[nodiscard]] OpenProject& project() { return *project_; }
    [[nodiscard]] const OpenProject& project() const { return *project_; }

    [[nodiscard]] Selection& selection() { return selection_; }
    [[nodiscard]] const Selection& selection() const { return selection_; }
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
    void textsShownChanged();                       ///< others found no room, or tags stand for others
    void opened();                                  ///< another project is there: views fit to it
    void workingChanged(bool working);
    void message(const QString& text, bool isError);

private:
    friend class OpenProject;
    /// Another project instead of the one that is open, with its steps.
    void begin(document::History history);
    /// Nothing is open any more.
    void end();
    /// Edits that are not done yet will not be.
    void endEdits();
    /// Another project may take this one's place: edits are refused, and those that are not done yet are put
    /// in their place only when it does not. Ends with begin().
    void setOpening(bool opening);

    void changed(const QString& what, const document::EditTrace& trace);
    bool mayEdit();
    Outcome apply(Result<document::Performed> performed);
    void evaluate(bool cancelRunning);

    document::History history_;
    std::optional<document::Document> preview_;
    bool open_ = false;
    bool opening_ = false;
    bool stopped_ = false;  ///< the last work was stopped by hand or failed
    SnapshotPointer snapshot_;
    Selection selection_;
    std::unique_ptr<OpenProject> project_;
    struct Inner;  ///< workers, what they remember (session_inner.h)
    std::unique_ptr<Inner> inner_;
};

}  // namespace erdwerk::app
