import { Badge, Box, Link as ChakraLink, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Aperture, Backpack, Brain, CalendarDays, ClipboardCheck, NotebookText, ScanEye } from "lucide-react";
import { useEffect } from "react";
import { NavLink, Outlet, useMatch } from "react-router";
import { sessionQuery, statusQuery } from "../api/queries";
import { keepFor } from "../offline/persist";
import { Backups } from "./Backups";
import { Guarded } from "./Broken";
import { ColorModeButton } from "./ColorModeButton";
import { DamageNote } from "./DamageNote";
import { Incoming } from "./incoming/Incoming";
import { Login } from "./Login";
import { useLastShot } from "./lastShot";
import { Palette } from "./Palette";
import { QuickLine } from "./QuickLine";
import { ReachBadge } from "./ReachBadge";
import { Settings } from "./Settings";
import { SharePhone } from "./SharePhone";
import { ShortcutHelp } from "./ShortcutHelp";
import { Toasts } from "./toaster";
import { useUndoKey } from "./useUndo";

/** The frame around every place: the places at the side or the thumb, the quick line above. */
export function Shell() {
  const lastShot = useLastShot(useMatch("/shot/:id")?.params.id);
  useUndoKey();
  const { data: session } = useQuery(sessionQuery);
  const { data: status } = useQuery(statusQuery);
  useEffect(() => {
    if (status) keepFor(status.keepDays);
  }, [status]);
  return (
    <Flex direction={{ base: "column", md: "row" }} minH="100dvh">
      <ChakraLink
        href="#main"
        position="absolute"
        left="-999px"
        _focus={{ left: "2", top: "2", zIndex: 30, bg: "panel", p: "2" }}
      >
        Skip to the content
      </ChakraLink>
      <Flex
        as="nav"
        aria-label="Places"
        direction={{ base: "row", md: "column" }}
        position={{ base: "fixed", md: "sticky" }}
        bottom={{ base: 0, md: "auto" }}
        top={{ base: "auto", md: 0 }}
        w={{ base: "100%", md: "84px" }}
        h={{ base: "auto", md: "100dvh" }}
        pt={{ md: "3" }}
        gap="1"
        justify={{ base: "space-around", md: "flex-start" }}
        bg="panel"
        borderColor="edge"
        borderTopWidth={{ base: "1px", md: "0" }}
        borderRightWidth={{ base: "0", md: "1px" }}
        zIndex="20"
      >
        <Place to="/shoot" icon={<CalendarDays aria-hidden />} name="Shoots" />
        {lastShot && <Place to={`/shot/${lastShot}`} icon={<Aperture aria-hidden />} name="Shot" />}
        <Place to="/card" icon={<ClipboardCheck aria-hidden />} name="Field card" />
        <Place to="/kit" icon={<Backpack aria-hidden />} name="Kit" />
        <Place to="/measure" icon={<ScanEye aria-hidden />} name="Measure" />
        <Place to="/log" icon={<NotebookText aria-hidden />} name="Log" />
        <Place to="/practice" icon={<Brain aria-hidden />} name="Practice" />
      </Flex>
      <Stack flex="1" minW="0" gap="0" pb={{ base: "76px", md: "4" }}>
        <Flex as="header" gap="3" align="center" px={{ base: "3", md: "4" }} py="2">
          <QuickLine />
          <Box flex="1" hideBelow="sm" />
          {status?.demo && (
            <Badge bg="unknownSoft" color="ink" size="md" hideBelow="sm">
              demo data
            </Badge>
          )}
          <Palette />
          <ReachBadge />
          <SharePhone />
          <Backups />
          <ShortcutHelp />
          <Settings />
          <ColorModeButton />
        </Flex>
        <DamageNote />
        <Box as="main" id="main" px={{ base: "3", md: "4" }} tabIndex={-1}>
          {session?.needed && !session.open ? (
            <Login />
          ) : (
            <Guarded>
              <Outlet />
            </Guarded>
          )}
        </Box>
      </Stack>
      <Incoming />
      <Toasts />
    </Flex>
  );
}

function Place({ to, icon, name }: { to: string; icon: React.ReactNode; name: string }) {
  return (
    <ChakraLink asChild variant="plain">
      <NavLink to={to}>
        {({ isActive }) => (
          <Stack
            align="center"
            gap="0.5"
            py="2"
            px={{ base: "1", md: "1" }}
            mx={{ md: "1.5" }}
            minW={{ base: "48px", md: "70px" }}
            minH="52px"
            rounded="lg"
            bg={isActive ? "accentSoft" : undefined}
            color={isActive ? "accent" : "muted"}
          >
            {icon}
            <Text
              textAlign="center"
              lineHeight="1.15"
              fontSize={{ base: "xs", md: "sm" }}
              fontWeight={isActive ? "bold" : "medium"}
            >
              {name}
            </Text>
          </Stack>
        )}
      </NavLink>
    </ChakraLink>
  );
}
