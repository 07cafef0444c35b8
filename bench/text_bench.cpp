// The placer of texts beside its peer: the same texts written where they are, with nothing keeping them
// apart. Run with QT_QPA_PLATFORM=offscreen where there is no display.

#include <QApplication>
#include <QImage>
#include <QPainter>
#include <chrono>
#include <cstdio>
#include <random>

#include "app/base/theme.h"
#include "app/plan/plan_texts.h"

namespace {

using namespace erdwerk;
using namespace erdwerk::app;
using annotate::Vec2;

double seconds(const std::function<void()>& work) {
    double best = 1e9;
    for (int i = 0; i < 5; ++i) {
        const auto start = std::chrono::steady_clock::now();
        work();
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
    }
    return best;
}

struct Site {
    Vec2 from;
    Vec2 to;
    QString first;
    QString second;
};

/// Sides of lots with their bearing and distance, and points with number and height.
std::vector<Site> sites(int count, double size) {
    std::mt19937 random(4);
    std::uniform_real_distribution<double> at(0, size);
    std::uniform_real_distribution<double> turn(-1.4, 1.4);
    std::uniform_real_distribution<double> length(30, 260);
    std::vector<Site> out;
    for (int i = 0; i < count; ++i) {
        const Vec2 from{at(random), at(random)};
        const double t = turn(random);
        const bool side = i % 2 == 0;
        const Vec2 to = side ? from + Vec2{std::cos(t), std::sin(t)} * length(random) : from;
        out.push_back({from, to,
                       side ? QStringLiteral("N %1°30'20\" E").arg(i % 90) : QString::number(1000 + i),
                       QString::number(300 + i % 5000 / 100.0, 'f', 2)});
    }
    return out;
}

void ask(PlanTexts& texts, const std::vector<Site>& sites) {
    std::uint64_t key = 0;
    for (const Site& s : sites) {
        PlanTexts::Ask ask{
            TextRank::Course, ++key, {}, {{s.first, 10.8, theme::ink}, {s.second, 10.8, theme::ink}}, {}, {}};
        const std::vector lines{texts.line(ask.looks[0], annotate::Stand::Above),
                                texts.line(ask.looks[1], annotate::Stand::Below)};
        const bool side = !(s.from == s.to);
        const TextLook tag{QStringLiteral("L%1").arg(key), 10.8, theme::ink};
        if (side) ask.tag = tag;
        texts.ask(side ? annotate::placesAlong({s.from, s.to}, lines, texts.line(tag))
                       : annotate::placesBeside(s.from, 4, lines, true),
                  std::move(ask));
    }
}

void compare(int count) {
    // About as close as on a plan where most find room.
    const double size = std::sqrt(count * 9000.0);
    const auto all = sites(count, size);
    ViewTransform view;
    view.size = {size, size};
    QImage image(QSize(static_cast<int>(size), static_cast<int>(size)), QImage::Format_RGB32);
    std::size_t without = 0;
    const double placing = seconds([&] {
        PlanTexts texts(view, 1, std::nullopt);
        ask(texts, all);
        texts.place();
    });
    const double whole = seconds([&] {
        image.fill(Qt::white);
        QPainter painter(&image);
        painter.setRenderHint(QPainter::Antialiasing);
        PlanTexts texts(view, 1, std::nullopt);
        ask(texts, all);
        texts.write(painter);
        without = texts.shown().without;
    });
    const double peer = seconds([&] {
        image.fill(Qt::white);
        QPainter painter(&image);
        painter.setRenderHint(QPainter::Antialiasing);
        PlanTexts texts(view, 1, std::nullopt);
        for (const Site& s : all) {
            const TextLook first{s.first, 10.8, theme::ink};
            const TextLook second{s.second, 10.8, theme::ink};
            const QPointF middle((s.from.x + s.to.x) / 2, (s.from.y + s.to.y) / 2);
            texts.writeAt(painter, texts.box(first, middle - QPointF(0, 8)), first);
            texts.writeAt(painter, texts.box(second, middle + QPointF(0, 8)), second);
        }
    });
    std::printf(
        "%6d labels: placing %.0f ms; placed and written %.0f ms, written alone %.0f ms: %.2f (3 wanted); "
        "%zu without room\n",
        count, placing * 1000, whole * 1000, peer * 1000, whole / peer, without);
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    erdwerk::app::theme::apply(application);
    for (const int count : {1000, 3000, 10000}) compare(count);
    return 0;
}
