#pragma once
// Section: a vertical slice along any line or through picked points, through several surfaces and clouds at
// once, with a table of chosen fields.

#include <QCheckBox>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QToolButton>
#include <set>

#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "app/bench/cross_sections.h"
#include "app/section/section_view.h"
#include "core/derive/dense_source.h"
#include "core/terrain/section.h"

class QStackedWidget;

namespace erdwerk::app {

class SlicePage : public BenchPage {
    Q_OBJECT
public:
    explicit SlicePage(Session& session, QWidget* parent = nullptr);
    ~SlicePage() override;
    [[nodiscard]] bool isWorking() const { return !worker_->idle() || across_->isWorking(); }
    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] SectionView* section() { return section_; }
    [[nodiscard]] QLineEdit* interval() { return interval_; }
    [[nodiscard]] CrossSections* across() { return across_; }
    [[nodiscard]] QPushButton* acrossButton() { return acrossButton_; }
    [[nodiscard]] QAction* keepAction() { return keep_; }
    /// Writes the table as CSV or XLSX.
    Result<void> exportTo(const QString& path) const;
    void copy() const;

Q_SIGNALS:
    void exportPressed();

protected:
    void showEvent(QShowEvent* event) override;

private:
    /// What a section is cut from, and what comes of it.
    struct Request {
        SnapshotPointer snapshot;
        geometry::Path path;
        double interval = 0;
        std::set<ObjectId> off;
    };
    struct Answer {
        std::vector<std::string> names;  ///< of the surfaces
        std::vector<terrain::SectionRow> rows;
        std::vector<std::pair<std::string, std::vector<derive::SlicePoint>>> clouds;
    };
    QLayout* buildBar();
    QWidget* buildViews();
    void mark(double station);
    /// The surfaces and clouds it can go through, as a menu.
    void offerShown();
    static Answer cut(const Request& request);
    void refresh();
    void show(Answer answer);
    void fillTable();
    void follow();
    void buildFields();
    [[nodiscard]] geometry::Path path() const;
    void draw();
    void openKept();
    [[nodiscard]] objects::Section asSection() const;
    void changeKept();
    void keep();

    Session& session_;
    QStackedWidget* views_;
    CrossSections* across_;
    QPushButton* acrossButton_;
    QAction* keep_;
    ObjectId kept_;                                      ///< the section of the project that is open
    std::shared_ptr<const objects::Object> keptObject_;  ///< as it is shown
    bool opening_ = false;                               ///< it is being shown: nothing was changed by hand
    SectionView* section_;
    QTableWidget* table_;
    QLineEdit* interval_;
    QLabel* title_;
    QLabel* everyLabel_;
    QToolButton* fields_;
    QToolButton* shows_;
    ObjectId along_;                      ///< a line or an alignment; none: the points below
    std::vector<geometry::Vec2> points_;  ///< picked survey points
    std::set<ObjectId> off_;              ///< surfaces and clouds that are not shown
    std::vector<terrain::SectionField> chosen_;
    Answer answer_;
    terrain::SectionTable shown_;
    std::unique_ptr<LatestWorker<Request, Answer>> worker_;
};

}  // namespace erdwerk::app
