#pragma once
// Findings: most serious first, each with its place and its fixes as buttons.

#include <QLabel>
#include <QTreeWidget>
#include <QWidget>

#include "app/shell/session.h"

namespace erdwerk::app {

class FindingsPage : public QWidget {
    Q_OBJECT
public:
    explicit FindingsPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTreeWidget* list() { return list_; }
    void lookedAt();  ///< the count of fixed ones starts anew

private:
    void refresh();
    void go(int index);
    void apply(int finding, std::size_t fix);
    bool eventFilter(QObject* watched, QEvent* event) override;

    Session& session_;
    QLabel* summary_;
    QTreeWidget* list_;
    std::size_t highest_ = 0;  ///< most findings since the last look
    SnapshotPointer shown_;
};

}  // namespace erdwerk::app
