#pragma once
// Findings: most serious first, each with its place and its fixes as buttons.

#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QTreeWidget>
#include <QWidget>

#include "app/base/session.h"

namespace erdwerk::app {

class FindingsPage : public QWidget {
    Q_OBJECT
public:
    explicit FindingsPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTreeWidget* list() { return list_; }
    /// The list as CSV.
    Result<void> exportTo(const QString& path) const;
    /// Accepts the current finding for this reason: it is not shown again.
    void accept(const QString& reason);
    void lookedAt();  ///< the count of fixed ones starts anew

Q_SIGNALS:
    void exportPressed();
    void tracePressed(ObjectId surface);

protected:
    void showEvent(QShowEvent* event) override;

private:
    void refresh();
    void fill();
    void fillAccepted();
    [[nodiscard]] QWidget* buttonsFor(const check::Finding& f, std::size_t index);
    void askReason();
    void go(int index);
    void apply(int finding, std::size_t fix);
    bool eventFilter(QObject* watched, QEvent* event) override;

    Session& session_;
    QLabel* summary_;
    QCheckBox* accepted_;
    QLineEdit* reason_;
    std::optional<check::Finding> asked_;  ///< to be accepted when the reason is typed
    QTreeWidget* list_;
    std::size_t highest_ = 0;  ///< most findings since the last look
    SnapshotPointer shown_;
};

}  // namespace erdwerk::app
