#pragma once
// Findings: most serious first, each with its place and its fixes as buttons.

#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QTreeWidget>
#include <QWidget>

#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "core/base/id.h"
#include "core/check/finding.h"

namespace erdwerk::app {

class FindingsPage : public BenchPage {
    Q_OBJECT
public:
    explicit FindingsPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTreeWidget* list() { return list_; }
    /// The list as CSV.
    Result<void> exportTo(const QString& path) const;
    /// Accepts the current finding for this reason: it is not shown again.
    void accept(const QString& reason);
    void lookedAt();  ///< the count of fixed ones starts anew
    /// Says what fixing all of a kind in one way does, and asks.
    void askToFixAll(const std::string& kind, const std::string& way);
    /// Everything that can be done with a finding.
    void fillMenu(QMenu& menu, std::size_t finding);

Q_SIGNALS:
    void exportPressed();
    void tracePressed(ObjectId surface);
    void typePressed(Ref point);  ///< a point without height, to type it

protected:
    void showEvent(QShowEvent* event) override;

private:
    void refresh();
    void fill();
    void fillAccepted();
    /// The first point of a line that a finding says has no height.
    [[nodiscard]] std::optional<Ref> withoutHeight(std::size_t index) const;
    QLayout* buildBar();
    QWidget* buildConfirm();
    void addRow(const check::Finding& f, std::size_t index);
    [[nodiscard]] QWidget* buttonsFor(const check::Finding& f, std::size_t index);
    /// The finding that a row, or a row under it, is about; -1 for none.
    [[nodiscard]] int findingOf(QTreeWidgetItem* row) const;
    void press(QTreeWidgetItem* row);
    bool keyPressed(int key);
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
    QWidget* confirm_;
    QLabel* confirmText_;
    std::optional<std::pair<std::string, std::string>> fixAll_;  ///< kind and way that are asked about
    std::size_t highest_ = 0;                                    ///< most findings since the last look
    std::size_t acceptedThen_ = 0;  ///< how many were accepted then: they are not fixed
    int goneTo_ = -1;               ///< the finding that the plan went to last
    bool goNext_ = false;           ///< when the results of a fix are there
    SnapshotPointer shown_;
};

}  // namespace erdwerk::app
