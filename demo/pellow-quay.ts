import { type DemoNode, heading, link, outside, page } from './demo-tree.ts';
import { withSections } from './pellow-sections.ts';

/** Pellow Quay School of Boatbuilding: everything in it is invented. */
export const PELLOW_QUAY: readonly DemoNode[] = withSections([
  page(
    'Pellow Quay School of Boatbuilding',
    {
      label: 'Home',
      description: 'Learn to build wooden boats on the water’s edge, in courses from one evening to a whole year.',
      offMenus: true,
    },
    'You learn to build a boat by building one. At Pellow Quay people of every age draw lines, shape planks and drive rivets under the eyes of boatbuilders who do it for a living.',
    '## Where to begin\nNew to tools? Take an *evening class* and see how a chisel feels. Ready to change your trade? The *year course* starts each September and ends with a launch.',
    'The doors stand open on the first Saturday of each month. Bring somebody who thinks they could never do it.',
  ),
  page(
    'Courses',
    { description: 'Long, short and evening courses, all taught at the bench.' },
    'Every course ends with something that floats, or a part of something that will. Groups are small: one instructor to eight benches at most.',
    'Tools are lent, timber is included, and nobody is asked to have done it before unless the page of the course says so.',
    [
      page(
        'Long courses',
        { description: 'Nine months to two years, full time.' },
        'Long courses are for people who want boatbuilding to be their work. They run from Monday to Thursday, with Fridays for drawing and for your own bench.',
        [
          page(
            'The year course',
            { description: 'Forty weeks, from lofting to launch.' },
            'Forty weeks that begin on the lofting floor and end on the slipway. In the first term you make your own tools and a nine-foot pram; in the second and third the group builds a clinker dinghy to a customer’s order.',
            '## What you learn\n- reading lines and lofting them full size\n- steaming, scarfing and fastening planks\n- spars, oars and simple rigging\n- pricing a job and keeping to it',
            'There are sixteen places. About half go to people who have never held a plane.',
            [
              page(
                'Term by term',
                { description: 'What happens in which week.' },
                'Term one: benches, tools, the pram. Term two: lofting, backbone, moulds. Term three: planking, fitting out, launch. Each term ends with an open bench where families may ask questions.',
              ),
              page(
                'Fees for the year course',
                { description: 'What it costs and what is included.' },
                'The fee covers teaching, timber, fastenings and the loan of every tool. You buy boots, a good apron and a set of pencils. It can be paid in ten parts.',
              ),
              page(
                'What graduates do',
                { description: 'Where last years’ people work now.' },
                'Of the last forty-eight graduates, thirty-one work in yards, six run their own, and the others have taken the habit of careful work somewhere else.',
              ),
            ],
          ),
          page(
            'Two-year apprenticeship',
            { description: 'Paid work in a yard, with one day a week at school.' },
            'You are employed by a yard and come to the school each Tuesday. We find the yard with you; at present eleven of them take apprentices.',
            [
              page(
                'Yards that take apprentices',
                { description: 'Eleven yards within a morning’s travel.' },
                'The yards differ: some build new, some mend old, one makes nothing but oars. Visit two before you choose.',
              ),
              page(
                'How apprentices are assessed',
                { description: 'Bench pieces, a log and a talk.' },
                'Four bench pieces, a log that you keep every week, and a talk of a quarter of an hour about the boat you know best.',
              ),
            ],
          ),
          page(
            'Restoration diploma',
            { description: 'Nine months on boats older than your grandparents.' },
            'Surveying, recording, deciding what to keep. The group takes on one hull a year and hands it back with a book about what was done.',
          ),
        ],
      ),
      page(
        'Short courses',
        { description: 'Two to ten days.' },
        'Short courses run in the holidays and at weekends. Lunch is cooked in the net loft and eaten at one long table.',
        [
          page(
            'Build a canoe',
            { description: 'Nine days, and you take it home.' },
            'You arrive with a roof rack and leave with a canoe. Plywood, copper wire and epoxy on the first days; sanding, varnish and patience on the last.',
          ),
          page(
            'Oars and paddles',
            { description: 'A weekend with drawknife and spokeshave.' },
            'A pair of oars from one plank of spruce. You will never look at a bought one the same way.',
          ),
          page(
            'Lofting',
            { description: 'Three days on your knees, and worth it.' },
            'From a table of offsets to full-size lines on the floor. Bring knee pads and a calculator you trust.',
          ),
          page(
            'Steam bending',
            { description: 'Two days of steam and hurry.' },
            'Why oak bends and when it breaks. You make ribs, a hoop and, with luck, a coat hanger for life.',
          ),
          page(
            'Sharpening day',
            { description: 'One day, all your edges.' },
            'Bring everything blunt you own. You leave with edges that shave and the habit of keeping them.',
          ),
          page(
            'Sailmaking by hand',
            { description: 'Five days, one small sail.' },
            'Cutting, seaming and roping a standing lug of six square metres. The palm is yours to keep.',
          ),
          page(
            'Family boat week',
            { description: 'Build a pram together in five days.' },
            'One adult and one young person to a boat, from nine years up. Friday ends with a regatta of everything that floats.',
          ),
        ],
      ),
      page(
        'Evening classes',
        { description: 'Weekday evenings, in ten-week terms.' },
        'Seven to half past nine, on the night that suits you. Classes are mixed: beginners beside people who have come for years.',
        [
          page(
            'Monday: first tools',
            { description: 'For absolute beginners.' },
            'Saw, plane, chisel. In ten weeks you make a bailer, a mallet and a box that closes.',
          ),
          page(
            'Tuesday: half models',
            { description: 'Carve the boat you dream of.' },
            'From a drawing to a half hull on a board, one lift at a time.',
          ),
          page(
            'Wednesday: rope and canvas',
            { description: 'Splices, bags and covers.' },
            'Eye splice, short splice, long splice; then a ditty bag to keep the tools in.',
          ),
          page(
            'Thursday: open bench',
            { description: 'Your own work, with help at hand.' },
            'Bring a project and a question. An instructor goes round; the kettle does too.',
          ),
        ],
      ),
      page(
        'Course dates',
        { description: 'All starting dates of this year and next.' },
        'Everything that starts from today on, month by month. What is full has a waiting list; ask at the office.\n\n% {"from":"site","kind":"course","where":[{"field":"dates","test":"from","value":"today"}],"order":"field","by":"dates","group":"dates","look":"table","fields":["dates","price","places","level"],"filters":["level","teachers"],"atOnce":12}',
      ),
      page(
        'Compare the courses',
        { description: 'Side by side: length, cost, what you need.' },
        'If you have a year and want a trade: the year course. If you have a yard already: the apprenticeship. If you have a weekend: anything else on the list.\n\n| Compared | Year course | Apprenticeship | Short course\n| How long | A year | Two years | Days\n| You bring | Time | A yard | Yourself\n| You leave with | A boat | A trade | A canoe',
      ),
    ],
  ),
  page(
    'Apply',
    { description: 'How to get a place, step by step.' },
    'Applying takes an hour and needs no certificates. Write to us about something you have made, whatever it was made of.',
    [
      page(
        'How to apply',
        { description: 'Four steps and what happens after each.' },
        '1. Visit, if you can.\n2. Send the form and a page about something you made.\n3. Come for a morning at the bench.\n4. Hear from us within ten days.',
      ),
      page(
        'Entry requirements',
        { description: 'Fewer than you think.' },
        'You are sixteen or older for long courses, can lift a plank with another person, and can read a tape. The rest is what we teach.',
      ),
      page(
        'Fees and paying',
        { description: 'What each course costs and how it can be paid.' },
        'Prices are for the whole course with materials. Pay at once, in three parts, or in ten for the long courses.\n\n| Course | Price | Length\n| Year course | 9,400 | Three terms\n| Restoration diploma | 6,200 | Two terms\n| Steam bending | 180 | Two days\n| Winter covers | 95 | One day\n\n!! Places are kept for ten days. After that they go to whoever waits.',
      ),
      page(
        'Bursaries',
        { description: 'Six a year, for people who could not come otherwise.' },
        'The Lantern Fund gives six bursaries a year. The committee reads your letter, not your bank statement alone.\n\n? Who can ask for one?\nWhoever has a place on a long course, or hopes for one.\n\n? When must the letter be there?\nBy the end of May.',
      ),
      page(
        'Studying from abroad',
        { description: 'Papers, lodgings, and when to start asking.' },
        'Begin five months ahead. We write the letters that a consulate wants and know which landladies like sawdust.',
      ),
      page(
        'Questions people ask',
        { description: 'Short answers.' },
        '? Do I need my own tools?\nNo. A knife of your own is welcome, once it is sharp.\n\n? Is there an upper age?\nThe oldest graduate so far was seventy-four.\n\n? Can I bring my dog?\nTo the open bench on Thursdays, on a lead.\n\n! Not answered here? Ring {telephone}; the office answers until five.',
      ),
      page(
        'Thank you for applying',
        { label: 'Thank you', offMenus: true, description: 'Shown after the form was sent.' },
        'Your application has arrived. You will hear from Admissions within ten days; until then there is nothing you need to do.',
      ),
    ],
  ),
  page(
    'Visit',
    { description: 'Open days, tours, and how to find the quay.' },
    'The school stands at the end of Cooper’s Hard, where the road becomes shingle. Come by the ferry if the weather is kind.',
    [
      page(
        'Open Saturdays',
        { description: 'The first Saturday of each month, ten to four.' },
        'Benches are manned, boats are half done, and you may try the drawknife. Nothing to book unless you are more than eight.\n\n:: staff\n## Who opens up\nThe rota hangs in the office. Whoever opens lights the stove in the long shed first, then the urn.\n\n:: students\nYour bench is your own on Saturdays too, as long as visitors can walk round it.',
      ),
      page(
        'Guided tours',
        { description: 'An hour through the sheds, on weekdays at eleven.' },
        'Tours begin at the steam box and end at the tea urn. Groups and schools please write ahead.',
        [
          page(
            'For groups who have booked',
            { description: 'What to bring, and where to stand.', offMenus: true },
            'Closed shoes, no scarves, and somebody who counts. The minibus may stop at the slip gate until ten.',
            [
              page(
                'Lunch on the quay',
                { description: 'Tables, taps and gulls.', offMenus: true },
                'Nine tables, two taps. Hold on to your bread.',
              ),
            ],
          ),
        ],
      ),
      page(
        'How to find us',
        { description: 'By ferry, bus, bicycle and car.' },
        'The number 12 bus stops at Ropewalk Corner, four minutes on foot. There are racks for twenty bicycles and very little room for cars.',
      ),
      page(
        'Access for everyone',
        { description: 'Ramps, doors, hearing loops, quiet hours.' },
        'All sheds but the sail loft are on one level. A chair lift to the loft is being built; until it is, classes move down when anybody needs it.',
      ),
      page(
        'School groups',
        { description: 'Half-day visits for pupils from seven years.' },
        'Pupils make a bailer each and launch a paper fleet. One teacher to twelve pupils, please.\n\n> We came for a morning and had to be fetched from the slip.\nA teacher from Lantern Street School\n\n! Bring wellingtons and a change of socks.',
      ),
    ],
  ),
  page(
    'Workshops',
    { description: 'Five sheds and a loft.' },
    'The sheds were built for fishing boats and have been mended ever since. Each has its own smell.',
    [
      page(
        'The long shed',
        { description: 'Where the year course builds.' },
        'Forty metres of clear floor, three cradles, and doors that open onto the slip.',
      ),
      page(
        'The small shed',
        { description: 'Canoes, prams and dinghies.' },
        'Warm, bright and always full. Benches along both sides, steam box at the end.',
      ),
      page(
        'The smithy',
        { description: 'Fittings, fastenings and repairs.' },
        'Two hearths. What can be bought is bought; what cannot is made here.',
      ),
      page(
        'The sail loft',
        { description: 'A floor to lay out a mainsail.' },
        'Shoes off at the stairs. The floor is sanded each August by whoever drew the short straw.',
      ),
      page(
        'The timber yard',
        { description: 'Oak, larch and patience.' },
        'Boards season for a year to the inch. Each stack carries the date and the wood it came from.',
      ),
      page(
        'The drawing office',
        { description: 'Plans, models and the library.' },
        'Four hundred sets of plans, catalogued by length. Copies for students are free.',
      ),
    ],
  ),
  page(
    'Boats built',
    { description: 'What has gone down the slip.' },
    'Every boat that left the school has a page: who built it, for whom, of what, and where it sails now.\n\n## The latest\n\n% {"from":"branch","kind":"boat","order":"field","by":"launched","isReversed":true,"look":"table","fields":["launched","size","timber","builders"]}',
    [
      page(
        'Clinker dinghies',
        { description: 'Eleven to fourteen feet.' },
        'The school’s own design, drawn for two adults and a wet dog. Thirty-one have been launched.',
        [
          page(
            'Marigold',
            { description: 'Launched in June, twelve feet.' },
            'Larch on oak, copper fastened. She belongs to a sailing club that lets children choose the colour of the sail.',
          ),
          page(
            'Second Helping',
            { description: 'Fourteen feet, for a family of six.' },
            'Built by a group of sixteen who argued about the sheer for a week and were all right.',
          ),
          page(
            'Plain Jane',
            { description: 'The boat of the year before last.' },
            'No varnish anywhere, by order. She has been out in more weather than any other.',
          ),
        ],
      ),
      page(
        'Canoes and kayaks',
        { description: 'More than two hundred so far.' },
        'Most go home on a roof rack and come back for photographs.',
      ),
      page(
        'Restorations',
        { description: 'Old hulls given another life.' },
        'One hull a year, recorded plank by plank.',
        [
          page(
            'The pilot gig Teal',
            { description: 'Thirty-two feet, six oars, ninety years.' },
            'Four new planks, two hundred new rivets, and the original thwarts, which were better than anything we would have made.',
          ),
          page(
            'The ketch Anna Quill',
            { description: 'A coaster’s second life.' },
            'She arrived on a lorry in three parts. The record of the work runs to three hundred pages.',
          ),
        ],
      ),
      page(
        'Boats for sale',
        { description: 'What is looking for an owner now.' },
        'Two prams and a dinghy at the moment. Prices cover the timber and go to the bursary fund.',
      ),
    ],
  ),
  page(
    'People',
    { description: 'Who teaches, who keeps things going.' },
    'Twelve instructors, most of whom build boats on the days they do not teach.',
    [
      heading('Teaching', [
        page(
          'Ines Carrow',
          { description: 'Head of the school.' },
          'Ines came for a weekend on oars and never left. She teaches lofting and signs everything.',
        ),
        page(
          'Marek Holt',
          { description: 'Year course.' },
          'Marek built coasters before he taught. He can tell the moisture of oak by its sound.',
        ),
        page(
          'Sunniva Pell',
          { description: 'Sails and rope.' },
          'Sunniva has sewn sails on four oceans and prefers the loft.',
        ),
        page(
          'Tobias Wren',
          { description: 'Restoration.' },
          'Tobias collects drawings of boats that no longer exist, and sometimes builds them.',
        ),
      ]),
      heading('Office', [
        page(
          'Oona Trask',
          { description: 'Admissions.' },
          'Oona reads every application twice and answers the telephone once.',
        ),
        page('Bram Calloway', { description: 'Timber and stores.' }, 'Bram knows where it is.'),
      ]),
      page(
        'Work with us',
        { description: 'Openings at the school.' },
        'At present we look for a second smith, two days a week.',
      ),
    ],
  ),
  page('News', { description: 'What happened lately.' }, 'Launches, prizes, repairs and the weather.', [
    page(
      'Marigold goes down the slip',
      { description: 'A launch with too much cake.' },
      'Two hundred people, one bottle of elderflower and a tide that waited for the speeches.',
    ),
    page(
      'A new roof for the long shed',
      { description: 'Dry at last.' },
      'Eleven weeks, four thousand slates, no injuries worth the name.',
    ),
    page(
      'Six bursaries given',
      { description: 'For the coming year.' },
      'The committee read ninety-four letters and wishes it could have said yes to thirty.',
    ),
    page(
      'The ferry stops at the quay again',
      { description: 'From the first of May.' },
      'Tern Sound Ferry Office has put us back on the timetable, four times a day in summer.',
    ),
  ]),
  heading('Good to know', [
    page(
      'Places',
      { description: 'Where to stay, eat and launch.' },
      'Lodgings with people who do not mind boots in the hall, three places that serve breakfast before seven, and two public slips.',
      [
        page(
          'Lodgings',
          { description: 'Rooms by the week or the year.' },
          'The list is kept by last year’s students and is honest.',
        ),
        page(
          'Public slips nearby',
          { description: 'Where you may launch without asking.' },
          'Ropewalk Hard at any tide; Cooper’s Hard for three hours either side of high water.',
        ),
      ],
    ),
    page(
      'Shop',
      { description: 'Tools, plans and aprons.' },
      'Open with the school. Plans can be sent; anvils cannot.',
    ),
    outside('Tide tables', 'https://tides.pellow-quay.example/'),
    link('Course calendar', 'Course dates'),
  ]),
  page(
    'Students',
    { description: 'For those who are here.', offMenus: true },
    'Timetables, benches, borrowing and the rules of the saw room.',
    [
      page(
        'Timetable',
        { description: 'Who is in which shed.', offMenus: true },
        'Changes are marked by noon of the day before.',
      ),
      page(
        'Borrowing tools',
        { description: 'What may leave the building.', offMenus: true },
        'Hand tools for a night, clamps for a week, the big bandsaw never.',
      ),
      page(
        'Saw room rules',
        { description: 'Read before you sign.', offMenus: true },
        'Two people, two pairs of glasses, no sleeves. The key hangs with the instructor.',
      ),
      page(
        'Drawing library',
        { description: 'How to find a plan.', offMenus: true },
        'By length, then by builder. Put it back where it was.',
      ),
      page('Bench places', { description: 'Whose bench is where.', offMenus: true }),
      page('Student council', { description: 'Who speaks for you.', offMenus: true }),
    ],
  ),
  page(
    'Staff handbook',
    { description: 'How things are done here.' },
    'Kept by the office. Tell Oona when a page is wrong.',
    [
      page(
        'First week',
        { description: 'Keys, keys and keys.' },
        'Collect them from Bram, sign for them, and find out which one opens what.',
      ),
      page(
        'Safety',
        { description: 'What to do before, and after.' },
        'The red book is in each shed. Write it down the same day.',
        [
          page('Machines', { description: 'Who may run which.' }),
          page('Fire', { description: 'Where to stand.' }),
          page('First aid', { description: 'Who knows how.' }),
        ],
      ),
      page('Ordering timber', { description: 'Ask Bram first.' }),
      page('Holidays and illness', { description: 'Whom to tell.' }),
      page('Marking and reports', { description: 'By the last Friday.' }),
    ],
  ),
  page(
    'Governors',
    { description: 'Who watches over the school.', offMenus: true },
    'Nine governors meet six times a year. Minutes appear here when they are approved.',
    [
      page('Members', { description: 'Nine people.', offMenus: true }),
      page(
        'Minutes',
        { description: 'Approved ones.', offMenus: true },
        'Minutes of the last two years. Older ones are in the drawing office.',
        [
          page('Minutes of March', { offMenus: true }),
          page('Minutes of May', { offMenus: true }),
          page('Minutes of July', { offMenus: true }),
          page('Minutes of September', { offMenus: true }),
        ],
      ),
      page('Papers for the next meeting', { description: 'Not for the public.', hidden: 'page', offMenus: true }),
    ],
  ),
  page(
    'Legal',
    { description: 'The small print, in large print.', offMenus: true },
    'Everything that has to be said somewhere.',
    [
      page(
        'Imprint',
        { description: 'Who runs this site.', offMenus: true },
        'Pellow Quay School of Boatbuilding, {address}. Telephone {telephone}.',
      ),
      page(
        'Privacy',
        { description: 'What we keep and for how long.', offMenus: true },
        'We keep what you send us for as long as your application or course lasts, and one year longer. Nothing is passed on.',
      ),
      page(
        'Terms of booking',
        { description: 'Changes and cancelling.', offMenus: true },
        'Up to four weeks before the course you get everything back; after that, what somebody from the waiting list pays for your place.',
      ),
      page(
        'Complaints',
        { description: 'How to make one, and who reads it.', offMenus: true },
        'Tell the instructor first. If that does not help, write to the governors.',
      ),
      page(
        'Accessibility statement',
        { description: 'What works and what does not yet.', offMenus: true },
        'The pages work by keyboard and with screen readers. Two old plans are images without a description; write to us and we read them to you.',
      ),
    ],
  ),
  page(
    'Useful links',
    { description: 'Other people’s pages that we like.', offMenus: true },
    'A list that students add to. It stands without header and footer on the screens in the sheds.',
  ),
  page(
    'Page not found',
    { description: 'Shown for addresses that lead nowhere.', offMenus: true },
    'There is no page at this address. It may have moved; the menu shows what there is.',
  ),
  page('Practice page', { description: 'Try things out here: it never goes live.', hidden: 'branch', offMenus: true }),
  page(
    'Signing in',
    { description: 'For students, staff and governors.', offMenus: true },
    'You have an account if you study, teach or govern here. It opens the students’ area, the handbook or the papers.',
  ),
  page(
    'Not open to you',
    { description: 'Shown to those whose account does not open a page.', offMenus: true },
    'You are signed in, and this page is kept for others. If you think that it should be open to you, ask at the office.',
  ),
  page(
    'Your account',
    { description: 'Sign out, or choose another password.' },
    'You are signed in. What is open to you stands in the menu and is found by search.',
  ),
]);

/** Pages that have been planned and written since the site went live. */
export const PELLOW_QUAY_DRAFTS: readonly { into: string; nodes: readonly DemoNode[] }[] = [
  {
    into: 'Short courses',
    nodes: [
      page(
        'Winter covers',
        { description: 'Two days of canvas and eyelets.' },
        'Make the cover that fits your own boat. Bring measurements; a page tells you which.',
      ),
      page(
        'Copper riveting',
        { description: 'One day, four hundred rivets.' },
        'Drive, nip, head. In pairs, one inside and one outside, as it has always been done.',
      ),
    ],
  },
  {
    into: 'News',
    nodes: [
      page(
        'The chair lift to the sail loft',
        { description: 'Work begins in spring.' },
        'From April the sail loft can be reached without the stairs. Thanks to everybody who rowed for it.',
      ),
    ],
  },
  {
    into: 'Courses',
    nodes: [
      page('Online talks', { description: 'Six winter evenings by the stove.' }, [
        page(
          'Reading a boat',
          { description: 'What a hull tells you.' },
          'An hour with photographs, and then questions.',
        ),
        page('Woods of the coast', { description: 'What grows and what floats.' }),
      ]),
    ],
  },
];
