#pragma once
// The open project as the windows see it: document, history and journal, results worked out in the
// background, one selection and one hover for all views. It computes nothing itself.

#include <QObject>
#include <QString>
#include <QStringList>
#include <atomic>
#include <memory>
#include <optional>
#include <vector>

#include "app/shell/latest_worker.h"
#include "core/check/finding.h"
#include "core/document/history.h"
#include "core/document/model.h"
#include "core/format/journal.h"
#include "core/terrain/shade.h"

namespace erdwerk::app {

/// An object, or a part of it: a point of a set, a vertex or segment of a line.
struct Ref {
    ObjectId object;
    std::optional<std::size_t> part;
    friend bool operator==(const Ref&, const Ref&) = default;
};

/// All results of one document.
struct Snapshot {
    document::Derived derived;
    std::vector<check::Finding> findings;
    document::Results<terrain::Shading> shadings;
};
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
    [[nodiscard]] const document::Derived& derived() const { return snapshot_->derived; }
    [[nodiscard]] bool isOpen() const { return open_; }
    [[nodiscard]] bool isChanged() const;
    [[nodiscard]] bool isWorking() const;
    /// How far the work is that says so, per cent; 0 when it does not.
    [[nodiscard]] int workDone() const { return workDone_; }
    [[nodiscard]] const QString& path() const { return path_; }

    /// One edit: journal, history, results. An edit that changes nothing is not a step.
    void apply(const QString& what, const document::Document& next);
    /// Shows a document that is not an edit yet (while dragging). Ends with apply() or with endPreview().
    void preview(const document::Document& next);
    void endPreview();
    void undo();
    void redo();
    void goTo(std::size_t step);

    // Files
    void startNew(const document::Document& document);
    /// Opens a project; when a journal of this save is there, its changes come with it and `recovered` tells.
    Result<QString> open(const QString& path);
    Result<void> saveAs(const QString& path);
    /// Opens a project file as a new, unnamed project (the demo).
    Result<void> openCopy(const QString& path);
    /// Journals of unnamed projects that a crash left behind.
    [[nodiscard]] static QStringList lostProjects();
    /// Brings one of them back as an unnamed project.
    Result<void> recoverLost(const QString& journal);
    /// Ends journalling; the journal goes when the last save holds everything.
    void close(bool discardChanges);

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
    void cancelWork();
    /// Runs the event loop until all results are there. For tests and pictures.
    void waitForResults();

Q_SIGNALS:
    void documentChanged();  ///< edited, undone, opened; results follow
    void resultsChanged();   ///< snapshot() is newer
    void selectionChanged();
    void hoverChanged();
    void opened();  ///< another project is there: views fit to it
    void workingChanged(bool working);
    void message(const QString& text, bool isError);
    void goToPlace(geometry::Vec2 place);  ///< all views move there

private:
    void changed(const QString& what, const document::Document& before);
    void evaluate(bool cancelRunning);
    void startJournal(const std::string& stamp);
    void dropLostSelection();

    document::History history_;
    std::optional<document::Document> preview_;
    std::size_t savedStep_ = 0;
    QString path_;
    bool open_ = false;
    std::optional<format::Journal> journal_;
    QString journalOf_;
    SnapshotPointer snapshot_ = std::make_shared<const Snapshot>();
    std::vector<Ref> selection_;
    std::optional<Hover> hover_;
    document::Model model_;
    check::Memory checks_;
    std::atomic<int> workDone_{0};
    SnapshotPointer workerLast_;
    std::unique_ptr<LatestWorker<document::Document, SnapshotPointer>> worker_;
};

}  // namespace erdwerk::app
