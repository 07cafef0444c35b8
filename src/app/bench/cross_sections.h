#pragma once
// Cross-sections of an alignment, one after the other: on the page Section.

#include <QLineEdit>
#include <QTableWidget>
#include <QToolButton>
#include <set>

#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "app/section/section_view.h"
#include "core/format/table_file.h"
#include "core/route/cross_section.h"

class QLabel;

namespace erdwerk::app {

class CrossSections : public QWidget {
    Q_OBJECT
public:
    explicit CrossSections(Session& session, QWidget* parent = nullptr);
    ~CrossSections() override;
    /// Of this alignment, but for surfaces that are off; works when it can be seen.
    void showOf(ObjectId alignment, const std::set<ObjectId>& off);
    [[nodiscard]] bool isWorking() const { return !worker_->idle(); }
    /// Stations with areas and volumes from the start, as they are shown.
    [[nodiscard]] format::Table asTable() const;
    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] SectionView* section() { return section_; }
    [[nodiscard]] QLineEdit* every() { return every_; }
    [[nodiscard]] QLineEdit* reach() { return reach_; }

protected:
    void showEvent(QShowEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Request {
        SnapshotPointer snapshot;
        ObjectId alignment;
        std::set<ObjectId> off;
        double every = 20;
        route::CrossSectionOptions options;
    };
    struct Answer {
        std::vector<std::string> surfaces;
        std::vector<std::string> lines;
        std::vector<route::CrossSection> sections;
        std::vector<double> stations;  ///< as they are read
        std::string problem;
    };
    static Answer cut(const Request& request);
    QLayout* buildBar();
    void refresh();
    void show(Answer answer);
    void step(int by);
    void draw();
    void mark();

    Session& session_;
    ObjectId alignment_;
    std::set<ObjectId> off_;
    Answer answer_;
    bool filling_ = false;
    QLineEdit* every_;
    QLineEdit* reach_;
    QLabel* title_;
    QToolButton* back_;
    QToolButton* on_;
    SectionView* section_;
    QTableWidget* table_;
    std::unique_ptr<LatestWorker<Request, Answer>> worker_;
};

}  // namespace erdwerk::app
